package polymetron.bench.block;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import polymetron.elaborate.Field;
import polymetron.elaborate.Register;
import polymetron.expression.Expression;
import polymetron.expression.Value;
import polymetron.library.HardwareAccess;
import polymetron.library.OnRead;
import polymetron.library.OnWrite;

/**
 * The registers of a block, executed as their description says: what software reads and writes, what that does, which
 * register is the one at an address, what is locked, and which fields raise an interrupt. What the block itself does comes
 * from its model, through the calls for the hardware's side and through {@link Behaviour}.
 */
public final class RegisterBank {
    /** What a block does when software writes or reads something of it. */
    public interface Behaviour {
        /** Value of a field that the block gives; what was stored in it where the block does not say. */
        default long value(String register, int index, String field, long stored) {
            return stored;
        }

        /** Software wrote a field that it hands over, or one that is a pulse; of a pulse only ones are told. */
        default void written(String register, int index, String field, long value) {}

        /** Software took what a field gives. */
        default void taken(String register, int index, String field) {}

        /** Software stored something in a register. */
        default void stored(String register, int index) {}
    }

    private static final Behaviour NOTHING = new Behaviour() {};

    /** One register of a row, with what is stored in it. */
    private static final class Cell {
        private final Register register;
        private final int index;
        private final long reset;
        private long value;

        private Cell(Register register, int index, long reset) {
            this.register = register;
            this.index = index;
            this.reset = reset;
        }
    }

    private final Map<Integer, List<Cell>> byWord = new HashMap<>();
    private final Map<String, List<Cell>> byName = new LinkedHashMap<>();
    private Behaviour behaviour = NOTHING;

    /**
     * @param clockHz clock of the block in hertz, from which some values after reset follow
     */
    public RegisterBank(List<Register> registers, long clockHz) {
        for (Register register : registers) {
            long reset = register.reset(clockHz);
            for (int index = 0; index < register.count(); index++) {
                Cell cell = new Cell(register, index, reset);
                byName.computeIfAbsent(register.name(), name -> new ArrayList<>()).add(cell);
                int first = (int) register.offset(index) & ~3;
                for (int word = 0; word < Math.max(1, register.width() / 32); word++) {
                    byWord.computeIfAbsent(first + 4 * word, at -> new ArrayList<>(1)).add(cell);
                }
            }
        }
        clear();
    }

    /** Tells the bank what the block does. */
    public void behave(Behaviour other) {
        behaviour = other;
    }

    /** Back to the values after reset. */
    public void clear() {
        byName.values().forEach(row -> row.forEach(cell -> cell.value = cell.reset));
    }

    // --- software's side

    /** What software reads of a word, with the effects that reading has. */
    public int read(int offset) {
        return read(offset, true);
    }

    /** The same without the effects. */
    public int peek(int offset) {
        return read(offset, false);
    }

    private int read(int offset, boolean effects) {
        int word = 0;
        for (Cell cell : byWord.getOrDefault(offset, List.of())) {
            if (!isSelected(cell.register)) {
                continue;
            }
            int shift = shift(cell, offset);
            long seen = 0;
            for (Field field : cell.register.fields()) {
                if (field.type().software().reads()) {
                    seen |= get(cell, field) << field.lowBit();
                }
            }
            word |= inWord(seen, shift);
            if (effects) {
                effects(cell, shift);
            }
        }
        return word;
    }

    private void effects(Cell cell, int shift) {
        for (Field field : cell.register.fields()) {
            boolean isInWord = inWord(field.mask(), shift) != 0;
            if (isInWord && field.type().onRead() == OnRead.CLEAR) {
                cell.value &= ~field.mask();
            } else if (isInWord && field.type().onRead() == OnRead.TAKE) {
                behaviour.taken(cell.register.name(), cell.index, field.name());
            }
        }
    }

    /**
     * Software writes a word.
     *
     * @param mask bits of the bytes that it writes
     */
    public void write(int offset, int value, int mask) {
        // Which register is there is decided before any of them changes.
        List<Cell> selected =
                byWord.getOrDefault(offset, List.of()).stream()
                        .filter(cell -> isSelected(cell.register))
                        .toList();
        for (Cell cell : selected) {
            int shift = shift(cell, offset);
            write(cell, outOfWord(value, shift), outOfWord(mask, shift));
        }
    }

    private void write(Cell cell, long value, long mask) {
        boolean stored = false;
        List<Field> told = new ArrayList<>();
        for (Field field : cell.register.fields()) {
            long touched = field.mask() & mask;
            if (!field.type().software().writes() || touched == 0 || isLocked(field)) {
                continue;
            }
            switch (field.type().onWrite()) {
                case STORE -> {
                    cell.value = cell.value & ~touched | value & touched;
                    stored = true;
                }
                case CLEAR_ONES -> cell.value &= ~(value & touched);
                case SET_ONES -> cell.value |= value & touched;
                case PULSE, HAND_OVER -> told.add(field);
            }
        }
        String name = cell.register.name();
        if (stored) {
            behaviour.stored(name, cell.index);
        }
        for (Field field : told) {
            long part = (value & mask & field.mask()) >>> field.lowBit();
            if (part != 0 || field.type().onWrite() == OnWrite.HAND_OVER) {
                behaviour.written(name, cell.index, field.name(), part);
            }
        }
    }

    // --- hardware's side

    /** The value of a field of a register that is no row. */
    public long get(String register, String field) {
        return get(register, 0, field);
    }

    public long get(String register, int index, String field) {
        Cell cell = cell(register, index);
        return get(cell, field(cell, field));
    }

    /** Stores a value, as the block does in what it loads or counts. */
    public void put(String register, String field, long value) {
        Cell cell = cell(register, 0);
        Field place = field(cell, field);
        cell.value = cell.value & ~place.mask() | value << place.lowBit() & place.mask();
    }

    /** Sets bits of a field, as something that happens does. */
    public void set(String register, String field, long bits) {
        put(register, field, stored(cell(register, 0), field) | bits);
    }

    /** Sets bits of a word, whatever fields they are. */
    void raise(int offset, int bits) {
        for (Cell cell : byWord.getOrDefault(offset, List.of())) {
            cell.value |= outOfWord(bits, shift(cell, offset));
        }
    }

    /** Whether the bank has a register. */
    public boolean has(String register) {
        return byName.containsKey(register);
    }

    /** Whether a register is the one at its address now. */
    public boolean isThere(String register) {
        List<Cell> row = byName.get(register);
        return row == null || isSelected(row.getFirst().register);
    }

    /** Whether a field that is not 0, and enabled, raises an interrupt source. */
    public boolean interrupts(String source) {
        for (List<Cell> row : byName.values()) {
            for (Field field : row.getFirst().register.fields()) {
                var raised = field.type().interrupt();
                if (raised == null || !raised.source().equals(source)) {
                    continue;
                }
                boolean isEnabled = raised.enable() == null || valueOf(raised.enable()) != 0;
                if (isEnabled && row.stream().anyMatch(cell -> get(cell, field) != 0)) {
                    return true;
                }
            }
        }
        return false;
    }

    // --- pieces

    private long get(Cell cell, Field field) {
        if (!field.type().onWrite().stores() && field.type().software().writes()) {
            switch (field.type().onWrite()) {
                case PULSE -> {
                    return 0;
                }
                case HAND_OVER -> {
                    return field.type().hardware() == HardwareAccess.NONE ? 0 : value(cell, field);
                }
                default -> {}
            }
        }
        return value(cell, field);
    }

    private long value(Cell cell, Field field) {
        long stored = cell.value >>> field.lowBit() & field.ones();
        return field.type().hardware() == HardwareAccess.VALUE
                ? behaviour.value(cell.register.name(), cell.index, field.name(), stored)
                        & field.ones()
                : stored;
    }

    private long stored(Cell cell, String field) {
        Field place = field(cell, field);
        return cell.value >>> place.lowBit() & place.ones();
    }

    private Cell cell(String register, int index) {
        List<Cell> row = byName.get(register);
        if (row == null) {
            throw new IllegalArgumentException("there is no register " + register);
        }
        return row.get(index);
    }

    private static Field field(Cell cell, String name) {
        return cell.register
                .field(name)
                .orElseThrow(
                        () ->
                                new IllegalArgumentException(
                                        "%s has no field %s"
                                                .formatted(cell.register.name(), name)));
    }

    private boolean isSelected(Register register) {
        return register.type().selectedBy() == null || isTrue(register.type().selectedBy());
    }

    private boolean isLocked(Field field) {
        return field.type().lockedBy() != null && isTrue(field.type().lockedBy());
    }

    private boolean isTrue(Expression condition) {
        return condition
                .evaluate(name -> Value.Bits.of(BigInteger.valueOf(valueOf(name)), 64, false))
                .isTrue();
    }

    /** The value of a field by its whole name, REGISTER.FIELD; 0 of one that is not there. */
    private long valueOf(String reference) {
        int dot = reference.indexOf('.');
        List<Cell> row = byName.get(reference.substring(0, dot));
        if (row == null) {
            return 0;
        }
        return row.getFirst()
                .register
                .field(reference.substring(dot + 1))
                .map(field -> get(row.getFirst(), field))
                .orElse(0L);
    }

    /** How far a register's lowest bit is above that of a word; below it for the upper words of a wide one. */
    private static int shift(Cell cell, int word) {
        return 8 * ((int) cell.register.offset(cell.index) - word);
    }

    private static int inWord(long bits, int shift) {
        return (int) (shift >= 0 ? bits << shift : bits >>> -shift);
    }

    private static long outOfWord(int bits, int shift) {
        long word = Integer.toUnsignedLong(bits);
        return shift >= 0 ? word >>> shift : word << -shift;
    }
}
