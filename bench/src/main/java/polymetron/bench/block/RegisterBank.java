package polymetron.bench.block;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Consumer;
import polymetron.elaborate.Register;
import polymetron.library.FieldType;

/**
 * The registers of a block, executed as their description says: what software reads and writes, what that does, which
 * register is the one at an address, what is locked, and which fields raise an interrupt. What the block itself does comes
 * from its model, which ties itself to fields ({@link BankField}), found by their name or, where a published standard lays
 * the registers out, by their place.
 */
public final class RegisterBank {
    private static final BankRegister[] NONE = {};

    /** A field that raises an interrupt, and the one that lets it through; null for always. */
    private record Raised(BankField field, BankField enable) {}

    private final Map<String, List<BankRegister>> byName = new LinkedHashMap<>();
    private final Map<String, List<Raised>> raised = new LinkedHashMap<>();

    /** Offsets of words that have registers, in order, and the registers of each. */
    private final int[] offsets;

    private final BankRegister[][] words;

    /**
     * @param clockHz clock of the block in hertz, from which some values after reset follow
     */
    public RegisterBank(List<Register> registers, long clockHz) {
        Map<Integer, List<BankRegister>> byWord = new TreeMap<>();
        for (Register register : registers) {
            for (int index = 0; index < register.count(); index++) {
                BankRegister each = new BankRegister(register, index, clockHz);
                byName.computeIfAbsent(register.name(), name -> new ArrayList<>()).add(each);
                int first = (int) register.offset(index) & ~3;
                for (int word = 0; word < Math.max(1, register.width() / 32); word++) {
                    byWord.computeIfAbsent(first + 4 * word, at -> new ArrayList<>(1)).add(each);
                }
            }
        }
        offsets = byWord.keySet().stream().mapToInt(Integer::intValue).toArray();
        words =
                byWord.values().stream()
                        .map(row -> row.toArray(NONE))
                        .toArray(BankRegister[][]::new);
        byName.values().forEach(row -> row.forEach(each -> each.resolve(this::named)));
        byName.values().forEach(row -> row.forEach(this::raises));
    }

    private void raises(BankRegister register) {
        for (BankField field : register.fields()) {
            FieldType.Interrupt interrupt = field.type().type().interrupt();
            if (interrupt != null) {
                BankField enable =
                        interrupt.enable() == null ? null : named(interrupt.enable()).orElse(null);
                raised.computeIfAbsent(interrupt.source(), source -> new ArrayList<>())
                        .add(new Raised(field, enable));
            }
        }
    }

    /** Back to the values after reset. */
    public void clear() {
        byName.values().forEach(row -> row.forEach(BankRegister::clear));
    }

    // --- software's side

    /** What software reads of a word, with the effects that reading has. */
    public int read(int offset) {
        int word = 0;
        for (BankRegister register : at(offset)) {
            if (register.isSelected()) {
                int shift = shift(register, offset);
                word |= inWord(register.access(outOfWord(-1, shift)), shift);
            }
        }
        return word;
    }

    /** The same without the effects. */
    public int peek(int offset) {
        int word = 0;
        for (BankRegister register : at(offset)) {
            if (register.isSelected()) {
                word |= inWord(register.read(), shift(register, offset));
            }
        }
        return word;
    }

    /**
     * Software writes a word.
     *
     * @param mask bits of the bytes that it writes
     */
    public void write(int offset, int value, int mask) {
        BankRegister[] there = at(offset);
        // Which register is there is decided before any of them changes.
        long selected = 0;
        for (int at = 0; at < there.length; at++) {
            selected |= there[at].isSelected() ? 1L << at : 0;
        }
        for (int at = 0; at < there.length; at++) {
            if ((selected >>> at & 1) != 0) {
                int shift = shift(there[at], offset);
                there[at].access(
                        outOfWord(value, shift), outOfWord(mask, shift), outOfWord(-1, shift));
            }
        }
    }

    /** Whether any register has bits in a word, selected or not. */
    public boolean isThere(int offset) {
        return at(offset).length > 0;
    }

    private BankRegister[] at(int offset) {
        int at = java.util.Arrays.binarySearch(offsets, offset);
        return at < 0 ? NONE : words[at];
    }

    // --- the block's side

    /**
     * A field of a register that is no row.
     *
     * @throws IllegalArgumentException when there is none of that name
     */
    BankField field(String register, String field) {
        return named(register + "." + field)
                .orElseThrow(
                        () ->
                                new IllegalArgumentException(
                                        "there is no field %s.%s".formatted(register, field)));
    }

    /**
     * A field of one register of a row.
     *
     * @throws IllegalArgumentException when there is none of that name
     */
    BankField row(String register, int index, String field) {
        return byName.getOrDefault(register, List.of()).get(index).field(field).orElseThrow();
    }

    /** The field that a reference, {@code REGISTER.FIELD}, names, in the first register of a row. */
    Optional<BankField> named(String reference) {
        int dot = reference.indexOf('.');
        List<BankRegister> row = byName.get(reference.substring(0, dot));
        return row == null ? Optional.empty() : row.getFirst().field(reference.substring(dot + 1));
    }

    /**
     * The field that software reads at a place now, for registers that a published standard lays out.
     *
     * @param offset of the byte that the register begins at
     * @throws IllegalArgumentException when there is none
     */
    BankField readAt(int offset, int bit) {
        return fieldAt(offset, bit, false);
    }

    /** The same for a field that software writes. */
    BankField writtenAt(int offset, int bit) {
        return fieldAt(offset, bit, true);
    }

    private BankField fieldAt(int offset, int bit, boolean writes) {
        for (BankRegister register : at(offset & ~3)) {
            if (register.type().offset(register.index()) != offset || !register.isSelected()) {
                continue;
            }
            BankField field = register.fieldAt(bit).orElse(null);
            if (field != null
                    && (writes
                            ? field.type().type().software().writes()
                            : field.type().type().software().reads())) {
                return field;
            }
        }
        throw new IllegalArgumentException(
                "there is no field to %s at offset 0x%x, bit %s"
                        .formatted(writes ? "write" : "read", offset, bit));
    }

    /** Sets bits of a word, whatever fields they are, as something that happens does. */
    void raise(int offset, int bits) {
        for (BankRegister register : at(offset)) {
            long set = outOfWord(bits, shift(register, offset));
            register.happens(set);
        }
    }

    /** Whether a register is the one at its address now. */
    public boolean isThere(String register) {
        List<BankRegister> row = byName.get(register);
        return row == null || row.getFirst().isSelected();
    }

    /** Whether a field that is not 0, and enabled, raises an interrupt source. */
    public boolean interrupts(String source) {
        for (Raised each : raised.getOrDefault(source, List.of())) {
            if ((each.enable() == null || each.enable().isSet()) && each.field().isSet()) {
                return true;
            }
        }
        return false;
    }

    /**
     * What is told of an event that software clears without knowing of it: it has not read it, and no interrupt stood for it
     * alone.
     */
    void onClearedUnread(Consumer<String> action) {
        byName.values()
                .forEach(
                        row ->
                                row.forEach(
                                        register ->
                                                register.onClearedUnread(
                                                        field -> {
                                                            if (!isToldByInterrupt(field)) {
                                                                action.accept(field.name());
                                                            }
                                                        })));
    }

    private boolean isToldByInterrupt(BankField field) {
        return raised.values().stream()
                .anyMatch(
                        sources -> {
                            List<Raised> raising =
                                    sources.stream()
                                            .filter(
                                                    each ->
                                                            each.field().isSet()
                                                                    && (each.enable() == null
                                                                            || each.enable()
                                                                                    .isSet()))
                                            .toList();
                            return raising.size() == 1 && raising.getFirst().field() == field;
                        });
    }

    /** How far a register's lowest bit is above that of a word; below it for the upper words of a wide one. */
    private static int shift(BankRegister register, int word) {
        return 8 * ((int) register.type().offset(register.index()) - word);
    }

    private static int inWord(long bits, int shift) {
        return (int) (shift >= 0 ? bits << shift : bits >>> -shift);
    }

    private static long outOfWord(int bits, int shift) {
        long word = Integer.toUnsignedLong(bits);
        return shift >= 0 ? word >>> shift : word << -shift;
    }
}
