package polymetron.bench.hart;

import java.util.List;
import java.util.Map;

/** Follows a trace of the hardware with the bench's hart. */
final class LockstepFollower {
    static final int MEMORY_BYTES = 0x1_0000;

    /** Instructions that may still end after an interrupt is pending and enabled. */
    private static final int LATEST = 2;

    /** Everything that has to be met; states are FETCH, EXECUTE, ACCESS, ARITHMETIC and SLEEP of the hardware. */
    static final List<String> EXPECTED =
            List.of(
                    "rise 0",
                    "rise 2",
                    "rise 3",
                    "rise 4",
                    "rise 5",
                    "trap 1",
                    "trap 2",
                    "trap 3",
                    "trap 4",
                    "trap 5",
                    "trap 6",
                    "trap 7",
                    "trap 11",
                    "interrupt 3",
                    "interrupt 7",
                    "interrupt 11",
                    "interrupt 16",
                    "interrupt 17",
                    "short",
                    "across",
                    "lui",
                    "auipc",
                    "jal",
                    "jalr",
                    "beq",
                    "bne",
                    "blt",
                    "bge",
                    "bltu",
                    "bgeu",
                    "lb",
                    "lh",
                    "lw",
                    "lbu",
                    "lhu",
                    "sb",
                    "sh",
                    "sw",
                    "addi",
                    "slti",
                    "sltiu",
                    "xori",
                    "ori",
                    "andi",
                    "slli",
                    "srli",
                    "srai",
                    "add",
                    "sub",
                    "sll",
                    "slt",
                    "sltu",
                    "xor",
                    "srl",
                    "sra",
                    "or",
                    "and",
                    "mul",
                    "mulh",
                    "mulhsu",
                    "mulhu",
                    "div",
                    "divu",
                    "rem",
                    "remu",
                    "fence",
                    "system");

    private static final String[] NAMES = {
        "", "lui", "auipc", "jal", "jalr", "beq", "bne", "blt", "bge", "bltu", "bgeu", "lb", "lh",
        "lw", "lbu", "lhu", "sb", "sh", "sw", "addi", "slti", "sltiu", "xori", "ori", "andi",
        "slli", "srli", "srai", "add", "sub", "sll", "slt", "sltu", "xor", "srl", "sra", "or",
        "and", "mul", "mulh", "mulhsu", "mulhu", "div", "divu", "rem", "remu", "fence", "system"
    };

    private final Ram memory = new Ram(MEMORY_BYTES, true);
    private final Hart hart;
    private final boolean compressed;
    private final Map<String, Integer> met;
    private int deviceWord;
    private int written;
    private int writtenMask;
    private int waited;
    private long retired;
    private long lines = -1;

    LockstepFollower(byte[] image, boolean compressed, Map<String, Integer> met) {
        this.compressed = compressed;
        this.met = met;
        memory.load(0, image);
        Registers device =
                new Registers() {
                    @Override
                    public int read(int offset) {
                        return deviceWord;
                    }

                    @Override
                    public void write(int offset, int value, int mask) {
                        written = value & mask;
                        writtenMask = mask;
                    }
                };
        BusMap map =
                new BusMap(
                        List.of(
                                new BusMap.Entry(0, MEMORY_BYTES - 1, memory),
                                new BusMap.Entry(0x1000_0000, 0x1000_0FFF, device),
                                new BusMap.Entry(0x2000_0000, 0x2000_0FFF, device)));
        this.hart = new Hart(map, map, true, compressed, HartTiming.ONE_EACH, 0, 0x40, 0);
        hart.csrs().addLocalLines(4);
        hart.csrs().setTime(() -> 0);
        hart.interpretOnly();
    }

    private void meet(String what) {
        met.merge(what, 1, Integer::sum);
    }

    /** Null when the hart does the same; else what differs. */
    String follow(String line) {
        if (line.startsWith("rise")) {
            meet(line);
            return null;
        }
        String[] words = line.split(" ");
        int pc = Integer.parseUnsignedInt(words[0], 16);
        int instruction = Integer.parseUnsignedInt(words[1], 16);
        int register = Integer.parseInt(words[2]);
        int value = word(words[3]);
        boolean traps = words[4].equals("1");
        int cause = word(words[5]);
        int pending = word(words[12]);
        lines++;
        if (pc != hart.pc()) {
            return "line %s: pc %08x, hart %08x".formatted(line, pc, hart.pc());
        }
        for (int each : new int[] {3, 7, 11, 16, 17, 18, 19}) {
            hart.csrs().setLine(each, (pending & 1 << each) != 0);
        }
        if (traps && cause < 0) {
            meet("interrupt " + (cause & 0x7FFF_FFFF));
            waited = 0;
            if (!hart.takeInterrupt()) {
                return "an interrupt that was not allowed: " + line;
            }
            return hart.csrs().lastCause() == cause ? null : "another interrupt: " + line;
        }
        boolean isDue = hart.csrs().pending() != 0 && hart.csrs().interruptsOn();
        waited = isDue ? waited + 1 : 0;
        if (waited > LATEST) {
            return "an interrupt is late: " + line;
        }
        return step(line, words, instruction, register, value, traps, cause);
    }

    private String step(
            String line,
            String[] words,
            int instruction,
            int register,
            int value,
            boolean traps,
            int cause) {
        deviceWord = word(words[9]);
        writtenMask = 0;
        long trapsBefore = hart.csrs().traps();
        int pc = hart.pc();
        boolean isShort = compressed && (instruction & 3) != 3;
        boolean fetches = !traps || cause != Trap.FETCH_FAULT && cause != Trap.FETCH_MISALIGNED;
        if (fetches) {
            note(instruction, isShort, pc);
        }
        hart.execute(1);
        boolean trapped = hart.csrs().traps() != trapsBefore;
        if (trapped != traps || traps && hart.csrs().lastCause() != cause) {
            return "%s: hart %s"
                    .formatted(line, trapped ? "traps " + hart.csrs().lastCause() : "goes on");
        }
        if (traps) {
            meet("trap " + cause);
            return null;
        }
        String counter =
                counter(
                        instruction,
                        isShort,
                        register,
                        value,
                        Long.parseUnsignedLong(words[11], 16));
        retired++;
        if (counter != null) {
            return line + ": " + counter;
        }
        if (register != 0 && hart.register(register) != value) {
            return "%s: x%d is %08x on the hart".formatted(line, register, hart.register(register));
        }
        boolean stores = words[6].equals("1") && words[7].equals("1");
        if (stores && writtenMask != 0) {
            int bytes = Integer.parseInt(words[10], 16);
            int mask = 0;
            for (int each = 0; each < 4; each++) {
                mask |= (bytes >> each & 1) != 0 ? 0xFF << 8 * each : 0;
            }
            if (mask != writtenMask || (word(words[9]) & mask) != written) {
                return line + ": another store";
            }
        }
        return null;
    }

    /** What a counter gave goes over from the hardware, once it is plausible. */
    private String counter(int instruction, boolean isShort, int register, int value, long cycle) {
        boolean isCsr = !isShort && (instruction & 0x7F) == 0x73 && (instruction >>> 12 & 3) != 0;
        int number = instruction >>> 20;
        if (!isCsr) {
            return null;
        }
        String wrong = null;
        int operand =
                (instruction >>> 14 & 1) != 0
                        ? instruction >>> 15 & 31
                        : hart.register(instruction >>> 15 & 31);
        boolean counts = number == 0xB00 || number == 0xC00 || number == 0xB80 || number == 0xC80;
        boolean retires = number == 0xB02 || number == 0xC02;
        if (retires && register != 0) {
            wrong =
                    value == (int) retired
                            ? null
                            : "instret should be %08x".formatted((int) retired);
        }
        if (counts && register != 0) {
            int expected = (int) ((number & 0x80) != 0 ? cycle >>> 32 : cycle);
            wrong = value == expected ? null : "cycle should be %08x".formatted(expected);
        }
        if (number == 0xB02 && (instruction >>> 12 & 3) == 1) {
            retired = retired & ~0xFFFF_FFFFL | operand & 0xFFFF_FFFFL;
            // The instruction that writes is not counted on top.
            retired--;
        }
        boolean isGiven = counts || retires || number == 0xC01 || number == 0xC81;
        if (isGiven && register != 0) {
            hart.setRegister(register, value);
        }
        return wrong;
    }

    private void note(int instruction, boolean isShort, int pc) {
        int word = isShort ? Compressed.expand(instruction & 0xFFFF) : instruction;
        meet(NAMES[Decoder.operation(word, true, true) & 0xFF]);
        if (isShort) {
            meet("short");
        } else if ((pc & 2) != 0) {
            meet("across");
        }
    }

    private static int word(String digits) {
        return digits.contains("x") ? 0 : Integer.parseUnsignedInt(digits, 16);
    }

    /** Null when memory is the same at the end. */
    String end(List<String> words) {
        int at = 0;
        for (String line : words) {
            String text = line.strip();
            if (text.isEmpty() || text.startsWith("//") || text.startsWith("@")) {
                continue;
            }
            for (String each : text.split("\\s+")) {
                if (memory.word(at) != Integer.parseUnsignedInt(each, 16)) {
                    return "memory differs at %04x".formatted(at);
                }
                at += 4;
            }
        }
        return at == MEMORY_BYTES ? null : "memory ends at %04x".formatted(at);
    }
}
