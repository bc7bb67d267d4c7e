package polymetron.bench.block;

import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.when;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Random;
import polymetron.bench.behaviour.Behaviour;
import polymetron.bench.hart.AccessCycles;
import polymetron.bench.hart.DirectMemory;
import polymetron.bench.stream.SteppedElement;
import polymetron.bench.stream.StreamWord;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;

/**
 * A DMA with both channels as the bench has it, beside memory that answers after a random time and now and then with an error, and
 * software that starts transfers, moves the tail of the ring, switches and resets at any time.
 */
public final class DmaBehaviour implements Behaviour {
    /** Descriptors have addresses that begin so. */
    private static final int RING = 4;

    private static final int RING_SHIFT = 28;
    private static final int DESCRIPTORS = 16;
    private static final int DESCRIPTOR = 16;

    /** A descriptor lies somewhere in a part of memory of this size, at a word that follows from the address of the part. */
    private static final int AROUND_DESCRIPTOR = 64;

    private static final int OFFSET_SHIFT = 6;

    /** Cycles after which a long transfer is given up. */
    private static final int LONGEST_CALM = 60_000;

    private static final int LONGEST_CALM_BITS = 20;

    private static final int RESET = 8;

    /** A transfer moves fewer bytes than two to this power here. */
    private static final int MOST_MOVED_BITS = 22;

    private final Random random = new Random(7);
    private final int[] descriptors =
            random.ints(DESCRIPTORS, 0, 1 << RING_SHIFT)
                    .map(each -> RING << RING_SHIFT | each & -AROUND_DESCRIPTOR)
                    .map(each -> each + offset(each))
                    .toArray();
    private final DmaModel model;
    private final RegisterBank bank;
    private final SteppedElement element;
    private final int bytes;
    private final Side send = new Side("SEND", "reads", 0);
    private final Side receive = new Side("RECEIVE", "writes", 64);

    /** What software wrote counts from the next cycle on. */
    private final List<Runnable> written = new ArrayList<>();

    private Map<String, Long> out = new LinkedHashMap<>();
    private StreamWord offered;

    /** Whether words are taken seldom, so that those that wait leave less room than a burst has words. */
    private boolean slowSink;

    /** Whether words come seldom, so that those that wait run out. */
    private boolean slowSource;

    /** A channel: what it asks memory for, and what software does with it. */
    private final class Side {
        private final String name;
        private final String port;
        private final int offset;

        /** Of the access under way; 0 for none. */
        private int cyclesLeft;

        private int restsFor;

        /** Cycles to another reset while the one before may be under way; -1 for none. */
        private int resetsAgainIn = -1;

        private boolean isDone;
        private boolean isWrong;

        /** Whether a write of the burst under way was refused, which its last access says. */
        private boolean refused;

        /** For how long a long transfer is under way, in which nothing fails and software waits; 0 for none. */
        private int calm;

        private int address;
        private boolean writes;
        private byte[] data = {};
        private boolean[] enabled;

        private Side(String name, String port, int offset) {
            this.name = name;
            this.port = port;
            this.offset = offset;
        }

        private DirectMemory memory() {
            DirectMemory memory = mock(DirectMemory.class);
            when(memory.cycles(anyInt()))
                    .thenAnswer(
                            asked -> {
                                int cycles = 1 + random.nextInt(1 + random.nextInt(6));
                                cyclesLeft = cycles;
                                return new AccessCycles(cycles, cycles, 0);
                            });
            when(memory.read(anyInt(), any()))
                    .thenAnswer(asked -> read(asked.getArgument(0), asked.getArgument(1)));
            when(memory.write(anyInt(), any(), any()))
                    .thenAnswer(
                            asked -> {
                                ends(asked.getArgument(0), true);
                                data = ((byte[]) asked.getArgument(1)).clone();
                                enabled = asked.getArgument(2);
                                return !isWrong;
                            });
            return memory;
        }

        private void ends(int place, boolean isWrite) {
            isDone = true;
            address = place;
            writes = isWrite;
            isWrong = calm == 0 && random.nextInt(60) == 0;
        }

        /** Mostly small lengths stand in the descriptors, and the addresses of others. */
        private boolean read(int place, byte[] into) {
            ends(place, false);
            random.nextBytes(into);
            if (place >>> RING_SHIFT == RING) {
                ByteBuffer words = ByteBuffer.wrap(into).order(ByteOrder.LITTLE_ENDIAN);
                for (int at = 0; at < into.length; at += Integer.BYTES) {
                    int word = place + at - offset(place) & DESCRIPTOR - 1;
                    if (word == 0) {
                        words.putInt(at, descriptor());
                    } else if (word == 8 && random.nextInt(8) > 0) {
                        words.putInt(at, random.nextInt(40));
                    }
                }
            }
            data = into.clone();
            return !isWrong;
        }

        private int descriptor() {
            return descriptors[random.nextInt(DESCRIPTORS)];
        }

        private BankField field(String register, String field) {
            return bank.field(name + "_" + register, field);
        }

        private void put(String register, String field, long value) {
            written.add(() -> field(register, field).put(value));
        }

        private void write(int register, long value) {
            written.add(() -> bank.write(offset + register, (int) value, -1));
        }

        /** Something of what software can do: a write takes some cycles at any bus. */
        private void software(Map<String, Long> in) {
            if (resetsAgainIn >= 0 && resetsAgainIn-- == 0) {
                resets(in);
                return;
            }
            if (restsFor > 0) {
                restsFor--;
                return;
            }
            boolean runs = field("CONTROL", "RUN").isSet();
            boolean isIdle = field("STATUS", "IDLE").isSet();
            if (calm > 0) {
                // It takes some cycles to begin.
                calm = isIdle && calm > 8 ? 0 : calm + 1;
                if (calm > LONGEST_CALM) {
                    calm = 0;
                    resets(in);
                }
                return;
            }
            int does = random.nextInt(isIdle ? 60 : 900);
            restsFor = does < 15 ? 3 : 0;
            switch (does) {
                case 0 -> {
                    put("ADDRESS", "BYTE", random.nextInt() & 0xFFFF_FFFFL & -bytes);
                }
                case 1, 2, 3, 4, 5 -> {
                    in.put(name + "_LENGTH_BYTES_stored", 1L);
                    // One that never ends is reset.
                    boolean isLong = random.nextInt(20) == 0;
                    int bits = random.nextInt(lengthBits);
                    write(16, (isLong ? 1 << bits : 0) + random.nextInt(70));
                    boolean mayEnd = isLong && bits < LONGEST_CALM_BITS;
                    calm = mayEnd && runs && random.nextBoolean() ? 1 : 0;
                }
                case 6, 7 -> put("CONTROL", "RUN", random.nextInt(8) == 0 ? 0 : 1);
                case 8 -> put("CONTROL", "RING", random.nextInt(2));
                case 9, 10, 11 -> put("TAIL", "ADDRESS", descriptor() & 0xFFFF_FFFFL);
                case 12 -> {
                    resets(in);
                    resetsAgainIn = random.nextInt(2) == 0 ? random.nextInt(12) : -1;
                }
                case 13, 14 -> {
                    if (!runs && isIdle) {
                        in.put(name + "_RING_ADDRESS_stored", 1L);
                        int first = descriptor();
                        // Hardware takes it over a cycle later than it is stored.
                        put("RING", "ADDRESS", first & 0xFFFF_FFFFL);
                        written.add(() -> late.add(() -> bank.write(offset + 24, first, -1)));
                    }
                }
                default -> {}
            }
        }

        private void resets(Map<String, Long> in) {
            in.put(name + "_CONTROL_RESET_pulse", 1L);
            write(0, control() | RESET);
        }

        private long control() {
            return field("CONTROL", "RUN").get() | field("CONTROL", "RING").get() << 1;
        }

        private void inputs(Map<String, Long> in) {
            for (String each :
                    List.of(
                            "CONTROL.RUN",
                            "CONTROL.RING",
                            "ADDRESS.BYTE",
                            "LENGTH.BYTES",
                            "RING.ADDRESS",
                            "TAIL.ADDRESS")) {
                String[] names = each.split("\\.");
                in.put(
                        "%s_%s_%s".formatted(name, names[0], names[1]),
                        field(names[0], names[1]).get());
            }
        }

        private DmaChannel channel() {
            return this == send ? model.send() : model.receive();
        }

        /** After the edge: what memory answered in the cycle before it, and what the channel had asked. */
        private void after(Map<String, Long> in, long lengthBefore) {
            boolean requests = cyclesLeft > 0;
            out.put(port + "_request", requests ? 1L : 0);
            in.put(port + "_done", isDone ? 1L : 0);
            int following = channel().following();
            if (requests) {
                out.put(port + "_more", isDone ? following + 1L : following);
            }
            boolean isAnswered = isDone && (!writes || following < 0);
            refused |= isDone && writes && isWrong;
            in.put(port + "_error", isAnswered && (writes ? refused : isWrong) ? 1L : 0);
            refused &= !isAnswered;
            in.put(port + "_bursts", 1L);
            if (isDone) {
                out.put(port + "_address", address & 0xFFFF_FFFFL);
                out.put(port + "_write", writes ? 1L : 0);
                if (writes) {
                    long lanes = 0;
                    for (int lane = 0; lane < bytes; lane++) {
                        lanes |= enabled == null || enabled[lane] ? 1L << lane : 0;
                    }
                    out.put(port + "_bytes", lanes);
                    if (lanes == (1L << bytes) - 1) {
                        out.put(port + "_value", word(data));
                    }
                } else {
                    in.put(port + "_answer", word(data));
                }
            }
            if (requests) {
                cyclesLeft--;
            }
            isDone = false;
            for (String each : List.of("DONE", "ERROR")) {
                out.put("%s_STATUS_%s_set".formatted(name, each), field("STATUS", each).get());
                field("STATUS", each).put(0);
            }
            long length = field("LENGTH", "BYTES").get();
            if (length != lengthBefore) {
                out.put(name + "_LENGTH_BYTES_load", 1L);
                out.put(name + "_LENGTH_BYTES_new", length);
            }
        }
    }

    private final List<Runnable> late = new ArrayList<>();

    /** Registers of the hardware that are put somewhere before the edge that comes. */
    private final Map<String, Long> moved = new LinkedHashMap<>();

    private final int lengthBits;

    public DmaBehaviour(
            ElaboratedPlatform platform, ElaboratedBlock block, Map<String, Long> parameters) {
        bytes = parameters.get("WIDTH").intValue() / Byte.SIZE;
        lengthBits = parameters.get("LENGTH").intValue();
        bank =
                new RegisterBank(
                        block.shape().registersOf("registers"), platform.frequencyHz(block));
        model =
                new DmaModel(
                        bank,
                        "both",
                        side -> parameters.get("BURST").intValue(),
                        bytes,
                        parameters.get("FIFO").intValue(),
                        parameters.get("RING") != 0);
        element = new SteppedElement(model);
        model.connect(side -> side.equals("reads") ? send.memory() : receive.memory());
    }

    @Override
    public String module() {
        return "polymetron_dma";
    }

    /** Of the bytes of a transfer the upper bits would take hours. */
    @Override
    public Map<String, Integer> registers() {
        Map<String, Integer> registers = new LinkedHashMap<>();
        if (lengthBits > MOST_MOVED_BITS) {
            for (String side : List.of("sends", "receives")) {
                for (String each : List.of("moving", "moved")) {
                    registers.put("%s.channel.%s".formatted(side, each), lengthBits);
                }
            }
        }
        return registers;
    }

    @Override
    public Map<String, Long> put(Random ignored, int cycle) {
        return moved;
    }

    private void putMoved(Side side) {
        if (lengthBits <= MOST_MOVED_BITS || side.channel().moved() < 0 || random.nextInt(16) > 0) {
            return;
        }
        // What is moved afterwards has room.
        long bytes = random.nextLong((1L << lengthBits) - (1L << MOST_MOVED_BITS));
        side.channel().putMoved(bytes);
        for (String each : List.of("moving", "moved")) {
            moved.put("%ss.channel.%s".formatted(side.name.toLowerCase(Locale.ROOT), each), bytes);
        }
    }

    private static int offset(int place) {
        return (place >>> OFFSET_SHIFT & 3) * Integer.BYTES;
    }

    /** The edge is done here: when memory answers is known afterwards. */
    @Override
    public Map<String, Long> inputs(Random ignored, int cycle) {
        List<Runnable> due = new ArrayList<>(late);
        late.clear();
        due.addAll(written);
        written.clear();
        due.forEach(Runnable::run);
        Map<String, Long> in = new LinkedHashMap<>();
        out = new LinkedHashMap<>();
        send.inputs(in);
        receive.inputs(in);
        send.software(in);
        receive.software(in);
        if (random.nextInt(400) == 0) {
            slowSource = random.nextInt(2) == 0;
        }
        if (offered == null && (slowSource ? random.nextInt(20) == 0 : random.nextInt(4) > 0)) {
            offered = word();
        }
        in.put("from_stream_tvalid", offered == null ? 0L : 1);
        if (offered != null) {
            in.put("from_stream_tdata", word(offered.bytes()));
            in.put("from_stream_tlast", offered.last() ? 1L : 0);
            in.put("from_stream_tkeep", keep(offered));
        }
        if (random.nextInt(400) == 0) {
            slowSink = random.nextInt(3) == 0;
        }
        boolean takes = slowSink ? random.nextInt(20) == 0 : random.nextInt(4) > 0;
        in.put("to_stream_tready", takes ? 1L : 0);
        boolean isReady = element.isReady();
        StreamWord gives = element.offered();
        out.put("from_stream_tready", isReady ? 1L : 0);
        out.put("to_stream_tvalid", gives == null ? 0L : 1);
        if (gives != null) {
            out.put("to_stream_tdata", word(gives.bytes()));
            out.put("to_stream_tlast", gives.last() ? 1L : 0);
            out.put("to_stream_tkeep", keep(gives));
        }
        for (Side side : List.of(send, receive)) {
            out.put(side.name + "_STATUS_IDLE", side.field("STATUS", "IDLE").get());
        }
        long sendLength = send.field("LENGTH", "BYTES").get();
        long receiveLength = receive.field("LENGTH", "BYTES").get();
        moved.clear();
        putMoved(send);
        putMoved(receive);
        element.edge(offered, takes);
        if (offered != null && isReady) {
            offered = null;
        }
        send.after(in, sendLength);
        receive.after(in, receiveLength);
        return in;
    }

    private StreamWord word() {
        byte[] word = new byte[bytes];
        random.nextBytes(word);
        boolean last = random.nextInt(receive.calm > 0 ? 5000 : 12) == 0;
        boolean[] keep = new boolean[bytes];
        java.util.Arrays.fill(keep, 0, last ? 1 + random.nextInt(bytes) : bytes, true);
        if (random.nextInt(8) == 0) {
            // No byte of a word has to be there.
            for (int at = 0; at < bytes; at++) {
                keep[at] = random.nextBoolean();
            }
        }
        return new StreamWord(word, keep, last);
    }

    private static long word(byte[] bytes) {
        long word = 0;
        for (int at = bytes.length - 1; at >= 0; at--) {
            word = word << Byte.SIZE | bytes[at] & 0xFF;
        }
        return word;
    }

    private static long keep(StreamWord word) {
        long keep = 0;
        for (int at = 0; at < word.bytes().length; at++) {
            keep |= word.keeps(at) ? 1L << at : 0;
        }
        return keep;
    }

    @Override
    public Map<String, Long> step(Map<String, Long> in) {
        return out;
    }

    @Override
    public void reset() {
        model.reset();
        offered = null;
        written.clear();
        late.clear();
        moved.clear();
        for (Side side : List.of(send, receive)) {
            side.cyclesLeft = 0;
            side.resetsAgainIn = -1;
            side.calm = 0;
            side.isDone = false;
            side.refused = false;
        }
    }
}
