package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.function.Predicate;
import polymetron.elaborate.Field;
import polymetron.elaborate.Register;
import polymetron.library.HardwareAccess;
import polymetron.library.OnRead;
import polymetron.library.OnWrite;
import polymetron.verilog.Expression;
import polymetron.verilog.Module;
import polymetron.verilog.Net;
import polymetron.verilog.Statement;

/**
 * The registers of a block as a module: what {@code docs/registers.md} says of each field, in hardware. Its ports are an access
 * port for reads and writes of words, and for each field what its access needs:
 *
 * <table>
 *   <caption>Ports of a field F of a register R</caption>
 *   <tr><td>{@code R_F}</td><td>output</td><td>the value that is stored; input where the block gives it</td></tr>
 *   <tr><td>{@code R_F_set}</td><td>input</td><td>bits that something sets</td></tr>
 *   <tr><td>{@code R_F_load}, {@code R_F_new}</td><td>input</td><td>stores a value of the block</td></tr>
 *   <tr><td>{@code R_F_count}</td><td>input</td><td>counts up by one</td></tr>
 *   <tr><td>{@code R_F_pulse}</td><td>output</td><td>ones that software writes, for one cycle</td></tr>
 *   <tr><td>{@code R_F_written}, {@code R_F_data}</td><td>output</td><td>software hands over a value</td></tr>
 *   <tr><td>{@code R_F_stored}</td><td>output</td><td>software stores something, which is there in the next cycle</td></tr>
 *   <tr><td>{@code R_F_taken}</td><td>output</td><td>software takes the value that it reads</td></tr>
 *   <tr><td>{@code interrupt_S}</td><td>output</td><td>level of an interrupt source that fields raise</td></tr>
 * </table>
 *
 * <p>For a row of registers a port has the bits of all of them, the first one lowest.
 */
public final class RegisterBankModule {
    private static final int WORD = 32;

    private final Module module;
    private final List<Register> registers;
    private final Predicate<String> wanted;
    private final long clockHz;
    private final int addressBits;
    private final Net clk;
    private final Net rst;
    private final Net read;
    private final Net readAddress;
    private final Net readData;
    private final Net readError;
    private final Net write;
    private final Net writeAddress;
    private final Net writeData;
    private final Net writeError;
    private final Net mask;

    /** Nets of fields by {@code REGISTER_FIELD}: what the value can be read from. */
    private final Map<String, Net> values = new LinkedHashMap<>();

    private final Map<String, Net> ports = new LinkedHashMap<>();
    private final Map<String, Net> hits = new LinkedHashMap<>();

    /** Halves of registers that are read and written whole, by the name of their upper word. */
    private final Map<String, BankHalves> halves = new LinkedHashMap<>();

    private RegisterBankModule(
            String name,
            List<Register> registers,
            long clockHz,
            int addressBits,
            Predicate<String> wanted) {
        this.module = new Module(name);
        this.wanted = wanted;
        this.registers = registers;
        this.clockHz = clockHz;
        this.addressBits = addressBits;
        this.clk = module.input("clk", 1);
        this.rst = module.input("rst", 1);
        this.read = module.input("read", 1);
        this.readAddress = module.input("read_address", addressBits);
        this.readData = module.output("read_data", WORD);
        this.readError = module.output("read_error", 1);
        this.write = module.input("write", 1);
        this.writeAddress = module.input("write_address", addressBits);
        this.writeData = module.input("write_data", WORD);
        Net bytes = module.input("write_bytes", WORD / 8);
        this.writeError = module.output("write_error", 1);
        fields();
        this.mask =
                module.wire(
                        "mask",
                        Expression.concat(
                                bytes.bit(3).repeat(8),
                                bytes.bit(2).repeat(8),
                                bytes.bit(1).repeat(8),
                                bytes.bit(0).repeat(8)));
    }

    /**
     * @param clockHz clock of the block in hertz, from which some values after reset follow
     * @param addressBits bits of an offset within the range
     * @param wanted whether the block has a use for a port that tells that something was stored
     */
    public static Module of(
            String name,
            List<Register> registers,
            long clockHz,
            int addressBits,
            Predicate<String> wanted) {
        RegisterBankModule bank =
                new RegisterBankModule(name, registers, clockHz, addressBits, wanted);
        bank.accesses();
        bank.storage();
        bank.interrupts();
        bank.unusedInputs();
        return bank.module;
    }

    // --- ports of fields

    private void fields() {
        for (Register register : registers) {
            for (Field field : register.fields()) {
                ports(new BankCell(register, field, 0), register.count() * field.bits());
            }
        }
    }

    private void ports(BankCell cell, int bits) {
        String name = cell.name();
        if (cell.is(HardwareAccess.VALUE)) {
            values.put(name, module.input(name, bits));
        } else if (cell.isStored()) {
            values.put(name, module.outputVariable(name, bits));
        }
        if (cell.isStored() && cell.is(HardwareAccess.SET)) {
            ports.put(name + "_set", module.input(name + "_set", bits));
        } else if (cell.isStored() && cell.is(HardwareAccess.LOAD)) {
            ports.put(name + "_load", module.input(name + "_load", cell.register().count()));
            ports.put(name + "_new", module.input(name + "_new", bits));
        } else if (cell.isStored() && cell.is(HardwareAccess.COUNT)) {
            ports.put(name + "_count", module.input(name + "_count", cell.register().count()));
        }
        if (cell.writes() && cell.onWrite() == OnWrite.STORE && wanted.test(name + "_stored")) {
            ports.put(name + "_stored", module.output(name + "_stored", cell.register().count()));
        }
        if (cell.writes() && cell.onWrite() == OnWrite.PULSE) {
            ports.put(name + "_pulse", module.output(name + "_pulse", bits));
        } else if (cell.writes() && cell.onWrite() == OnWrite.HAND_OVER) {
            ports.put(name + "_written", module.output(name + "_written", cell.register().count()));
            ports.put(name + "_data", module.output(name + "_data", bits));
        }
        if (cell.reads() && cell.field().type().onRead() == OnRead.TAKE) {
            ports.put(name + "_taken", module.output(name + "_taken", cell.register().count()));
        }
    }

    // --- accesses

    /** Whether an access of software is to a word, as a wire. */
    private Net hit(Net strobe, Net address, String kind, BankPlace place) {
        return hits.computeIfAbsent(
                kind + "_" + place.name(),
                name -> {
                    Expression at =
                            strobe.read()
                                    .and(
                                            address.bits(addressBits - 1, 2)
                                                    .is(
                                                            Expression.constant(
                                                                    addressBits - 2,
                                                                    place.word() >>> 2)));
                    var selectedBy = place.register().type().selectedBy();
                    return module.wire(
                            name, selectedBy == null ? at : at.and(condition(selectedBy)));
                });
    }

    private Net writeHit(BankPlace place) {
        return hit(write, writeAddress, "writes", place);
    }

    private Net readHit(BankPlace place) {
        return hit(read, readAddress, "reads", place);
    }

    /** A condition of fields, one bit. */
    private Expression condition(polymetron.expression.Expression of) {
        String text = of.toString();
        List<String> reads = new ArrayList<>();
        for (String reference : of.names()) {
            String name = reference.replace('.', '_');
            Net net = values.get(name);
            int bits = bitsOf(reference);
            String value = net == null ? "1'b0" : net.bits(bits - 1, 0).text();
            text = text.replaceAll("\\b" + reference.replace(".", "\\.") + "\\b", value);
            if (net != null) {
                reads.add(net.name());
            }
        }
        return new Expression("|(" + text + ")", 1, List.copyOf(reads), false);
    }

    private int bitsOf(String reference) {
        for (Register register : registers) {
            for (Field field : register.fields()) {
                if ((register.name() + "." + field.name()).equals(reference)) {
                    return field.bits();
                }
            }
        }
        return 1;
    }

    // --- what software reads, and what reading and writing tell the block

    private void accesses() {
        List<Net> words = new ArrayList<>();
        for (Register register : registers) {
            for (int index = 0; index < register.count(); index++) {
                for (BankPlace place : BankPlace.of(register, index)) {
                    Expression seen = halved(place, seen(place));
                    if (seen != null) {
                        words.add(
                                module.wire(
                                        "word_" + place.name(),
                                        readHit(place).read().repeat(WORD).and(seen)));
                    }
                }
            }
            for (Field field : register.fields()) {
                strobes(register, field);
            }
        }
        Expression all = Expression.constant(WORD, 0);
        for (Net word : words) {
            all = all.reads().isEmpty() ? word.read() : all.or(word.read());
        }
        module.assign(readData, all);
        module.assign(readError, noSuchWord(readAddress));
        module.assign(writeError, noSuchWord(writeAddress));
    }

    /** Whether no register has bits in the word at an address. */
    private Expression noSuchWord(Net address) {
        TreeSet<Long> words = new TreeSet<>();
        for (Register register : registers) {
            for (int index = 0; index < register.count(); index++) {
                BankPlace.of(register, index).forEach(place -> words.add(place.word() >>> 2));
            }
        }
        Expression at = address.bits(addressBits - 1, 2);
        Expression found = null;
        // Words that follow each other are one comparison with both ends.
        while (!words.isEmpty()) {
            long first = words.pollFirst();
            long last = first;
            while (words.remove(last + 1)) {
                last++;
            }
            Expression run = between(at, first, last);
            found = found == null ? run : found.or(run);
        }
        return found == null ? Expression.constant(1, 1) : found.not();
    }

    private Expression between(Expression at, long first, long last) {
        int bits = addressBits - 2;
        if (first == last) {
            return at.is(Expression.constant(bits, first));
        }
        Expression notAbove = at.atMost(Expression.constant(bits, last));
        return first == 0 ? notAbove : Expression.constant(bits, first).atMost(at).and(notAbove);
    }

    /** A word as software reads it; null where nothing of it is read. */
    private Expression seen(BankPlace place) {
        List<Field> fields =
                place.register().fields().stream()
                        .sorted(java.util.Comparator.comparingInt(Field::lowBit).reversed())
                        .toList();
        List<Expression> parts = new ArrayList<>();
        int above = WORD;
        for (Field field : fields) {
            BankCell cell = new BankCell(place.register(), field, place.index());
            BankPart part = BankPart.of(place, field);
            Net value = values.get(cell.name());
            if (part == null || !cell.reads() || value == null && isZero(cell)) {
                continue;
            }
            gap(parts, above, part.wordHigh() + 1);
            parts.add(
                    value == null
                            ? constant(cell, part)
                            : value.bits(
                                    cell.low() + part.fieldHigh(), cell.low() + part.fieldLow()));
            above = part.wordLow();
        }
        if (parts.isEmpty()) {
            return null;
        }
        gap(parts, above, 0);
        return Expression.concat(parts.toArray(Expression[]::new));
    }

    /** A field that neither software nor the block changes is what it is after reset, such as a version. */
    private Expression constant(BankCell cell, BankPart part) {
        int bits = part.fieldHigh() - part.fieldLow() + 1;
        long value = alwaysThere(cell) >>> part.fieldLow();
        return Expression.constant(bits, value & (1L << bits) - 1);
    }

    private boolean isZero(BankCell cell) {
        return cell.isStored() || cell.is(HardwareAccess.VALUE) || alwaysThere(cell) == 0;
    }

    private long alwaysThere(BankCell cell) {
        int index = cell.index();
        return cell.field().reset(clockHz, index) & cell.field().implemented(index);
    }

    private static void gap(List<Expression> parts, int above, int below) {
        if (above > below) {
            parts.add(Expression.constant(above - below, 0));
        }
    }

    // --- registers of two words that are one

    /** The words of which a write changes a field. */
    private static List<BankPlace> writePlaces(BankCell cell) {
        List<BankPlace> places = BankPlace.of(cell.register(), cell.index());
        return cell.register().type().isWhole()
                ? List.of(places.getLast())
                : places.stream().filter(each -> BankPart.of(each, cell.field()) != null).toList();
    }

    /** The words of which a read takes or clears a field. */
    private static List<BankPlace> readPlaces(BankCell cell) {
        List<BankPlace> places = BankPlace.of(cell.register(), cell.index());
        return cell.register().type().isWhole()
                ? List.of(places.getFirst())
                : places.stream().filter(each -> BankPart.of(each, cell.field()) != null).toList();
    }

    private static BankPlace upper(BankPlace lower) {
        return BankPlace.of(lower.register(), lower.index()).getLast();
    }

    private BankHalves halves(BankPlace lower) {
        return halves.computeIfAbsent(
                lower.name(),
                name ->
                        new BankHalves(
                                module, name, readHit(lower), writeHit(lower), writeData, mask));
    }

    /** Of the upper half software sees what it was when the lower one was read. */
    private Expression halved(BankPlace place, Expression seen) {
        if (seen == null || !place.isUpperHalf()) {
            return seen;
        }
        return halves(BankPlace.of(place.register(), place.index()).getFirst()).kept(seen);
    }

    private void strobes(Register register, Field field) {
        BankCell first = new BankCell(register, field, 0);
        String name = first.name();
        List<Expression> taken = new ArrayList<>();
        List<Expression> written = new ArrayList<>();
        List<Expression> data = new ArrayList<>();
        for (int index = register.count() - 1; index >= 0; index--) {
            BankCell cell = new BankCell(register, field, index);
            boolean isTold =
                    ports.containsKey(name + "_written")
                            || ports.containsKey(name + "_pulse")
                            || ports.containsKey(name + "_stored");
            if (isTold) {
                Written touched = written(cell);
                written.add(touched.mask().any());
                data.add(touched.data().and(touched.mask()));
            }
            Expression reads = null;
            for (BankPlace place : readPlaces(cell)) {
                if (ports.containsKey(name + "_taken")) {
                    Expression hit = readHit(place).read();
                    reads = reads == null ? hit : reads.or(hit);
                }
            }
            taken.add(reads);
        }
        if (ports.containsKey(name + "_taken")) {
            module.assign(ports.get(name + "_taken"), concat(taken));
        }
        if (ports.containsKey(name + "_written")) {
            module.assign(ports.get(name + "_written"), concat(written));
            module.assign(ports.get(name + "_data"), concat(data));
        }
        if (ports.containsKey(name + "_stored")) {
            module.assign(ports.get(name + "_stored"), concat(written));
        }
        if (ports.containsKey(name + "_pulse")) {
            module.assign(ports.get(name + "_pulse"), concat(data));
        }
    }

    private static Expression concat(List<Expression> parts) {
        return Expression.concat(parts.toArray(Expression[]::new));
    }

    // --- what is stored

    /** Bits of a field that software writes now, and what it writes. */
    private record Written(Expression mask, Expression data) {}

    private Written written(BankCell cell) {
        List<Expression> masks = new ArrayList<>();
        List<Expression> data = new ArrayList<>();
        for (BankPlace place : BankPlace.of(cell.register(), cell.index()).reversed()) {
            BankPart part = BankPart.of(place, cell.field());
            if (part == null) {
                continue;
            }
            if (place.isLowerHalf()) {
                masks.add(halves(place).writtenMask(part, writeHit(upper(place))));
                data.add(halves(place).writtenData(part));
                continue;
            }
            int bits = part.wordHigh() - part.wordLow() + 1;
            masks.add(
                    mask.bits(part.wordHigh(), part.wordLow())
                            .and(writeHit(place).read().repeat(bits)));
            data.add(writeData.bits(part.wordHigh(), part.wordLow()));
        }
        Expression all = concat(masks);
        var lock = cell.field().type().lockedBy();
        return new Written(
                lock == null ? all : all.and(condition(lock).not().repeat(cell.field().bits())),
                concat(data));
    }

    private void storage() {
        List<Statement> atReset = new ArrayList<>();
        List<Statement> otherwise = new ArrayList<>();
        for (Register register : registers) {
            for (Field field : register.fields()) {
                for (int index = 0; index < register.count(); index++) {
                    BankCell cell = new BankCell(register, field, index);
                    if (cell.isStored()) {
                        Net value = values.get(cell.name());
                        long there = field.implemented(index);
                        atReset.add(
                                new Statement.Store(
                                        value,
                                        cell.high(),
                                        cell.low(),
                                        Expression.constant(
                                                field.bits(),
                                                field.reset(clockHz, index) & there)));
                        Expression next = next(cell, value.bits(cell.high(), cell.low()));
                        Statement store =
                                new Statement.Store(
                                        value,
                                        cell.high(),
                                        cell.low(),
                                        there == field.ones()
                                                ? next
                                                : next.and(
                                                        Expression.constant(field.bits(), there)));
                        Expression changes = changes(cell);
                        if (changes != null) {
                            otherwise.add(Statement.when(changes, store));
                        }
                    }
                }
            }
        }
        halves.values().forEach(each -> each.store(atReset, otherwise));
        if (!atReset.isEmpty()) {
            module.clocked(clk, rst, atReset, otherwise);
        }
    }

    /** When a field changes at all; null for never. */
    private Expression changes(BankCell cell) {
        List<Expression> reasons = new ArrayList<>();
        boolean isWritten =
                cell.writes()
                        && cell.onWrite() != OnWrite.PULSE
                        && cell.onWrite() != OnWrite.HAND_OVER;
        if (isWritten) {
            writePlaces(cell).forEach(place -> reasons.add(writeHit(place).read()));
        }
        if (cell.reads() && cell.field().type().onRead() == OnRead.CLEAR) {
            readPlaces(cell).forEach(place -> reasons.add(readHit(place).read()));
        }
        String name = cell.name();
        if (ports.containsKey(name + "_set")) {
            reasons.add(ports.get(name + "_set").bits(cell.high(), cell.low()).any());
        } else if (ports.containsKey(name + "_load")) {
            reasons.add(ports.get(name + "_load").bit(cell.index()));
        } else if (ports.containsKey(name + "_count")) {
            reasons.add(ports.get(name + "_count").bit(cell.index()));
        }
        return reasons.stream().reduce(Expression::or).orElse(null);
    }

    /** What a field has after the next edge of the clock: software first, then what happens, which wins. */
    private Expression next(BankCell cell, Expression now) {
        Expression next = now;
        if (cell.writes()) {
            Written written = written(cell);
            Expression ones = written.data().and(written.mask());
            next =
                    switch (cell.onWrite()) {
                        case STORE -> now.and(written.mask().not()).or(ones);
                        case CLEAR_ONES -> now.and(ones.not());
                        case SET_ONES -> now.or(ones);
                        case PULSE, HAND_OVER -> now;
                    };
        }
        if (cell.reads() && cell.field().type().onRead() == OnRead.CLEAR) {
            for (BankPlace place : readPlaces(cell)) {
                next = next.and(readHit(place).read().not().repeat(cell.field().bits()));
            }
        }
        String name = cell.name();
        if (ports.containsKey(name + "_set")) {
            return next.or(ports.get(name + "_set").bits(cell.high(), cell.low()));
        }
        if (ports.containsKey(name + "_load")) {
            return Expression.choose(
                    ports.get(name + "_load").bit(cell.index()),
                    ports.get(name + "_new").bits(cell.high(), cell.low()),
                    next);
        }
        if (ports.containsKey(name + "_count")) {
            // What software writes counts on from the next cycle.
            Expression counts = ports.get(name + "_count").bit(cell.index());
            Expression more = now.plus(counts.widened(cell.field().bits()));
            return cell.writes() ? Expression.choose(written(cell).mask().any(), next, more) : more;
        }
        return next;
    }

    // --- interrupts, and what is left over

    private void interrupts() {
        Map<String, Expression> sources = new LinkedHashMap<>();
        for (Register register : registers) {
            for (Field field : register.fields()) {
                var raised = field.type().interrupt();
                if (raised == null) {
                    continue;
                }
                Net value = values.get(register.name() + "_" + field.name());
                Expression level = value.read().any();
                if (raised.enable() != null) {
                    Net enable = values.get(raised.enable().replace('.', '_'));
                    level =
                            enable == null
                                    ? Expression.constant(1, 0)
                                    : level.and(enable.read().any());
                }
                Expression before = sources.get(raised.source());
                sources.put(raised.source(), before == null ? level : before.or(level));
            }
        }
        sources.forEach(
                (source, level) -> module.assign(module.output("interrupt_" + source, 1), level));
    }

    /** Inputs, or bits of them, that no register needs. */
    private void unusedInputs() {
        List<Expression> inputs = new ArrayList<>();
        for (Module.Port port : module.ports()) {
            if (port.way() == Module.Way.INPUT) {
                inputs.add(port.net().read());
            }
        }
        inputs.add(mask.read());
        halves.values().forEach(each -> inputs.addAll(each.kept()));
        module.unused("inputs", inputs);
    }
}
