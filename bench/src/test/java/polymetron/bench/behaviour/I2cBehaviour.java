package polymetron.bench.behaviour;

import static polymetron.bench.behaviour.Registers.any;
import static polymetron.bench.behaviour.Registers.bit;
import static polymetron.bench.behaviour.Registers.isSet;
import static polymetron.bench.behaviour.Registers.named;
import static polymetron.bench.behaviour.Registers.once;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Map;
import java.util.Random;

/**
 * A controller of a two-wire bus (UM10204, 3.1) beside others that pull both lines as they like: commands of a start, a byte and a
 * stop, given at any time, with any times of the clock line.
 */
final class I2cBehaviour implements Behaviour {
    private enum Piece {
        START,
        BIT,
        ACKNOWLEDGE,
        STOP
    }

    private enum Stage {
        IDLE,
        LOW_OLD,
        LOW_NEW,
        RISES,
        HIGH,
        CHANGED
    }

    private static final int BITS = 8;

    private final FilteredLevel scl;
    private final FilteredLevel sda;
    private final Deque<Piece> pieces = new ArrayDeque<>();
    private Stage stage = Stage.IDLE;

    /** Cycles that the stage still takes. */
    private int left;

    private boolean sdaBefore;
    private boolean taken;
    private boolean owned;
    private boolean writes;
    private boolean reads;
    private boolean last;
    private boolean refused;
    private boolean lost;
    private boolean data;
    private int shift;

    // What software and the others do.
    private boolean enabled = true;
    private int lowCycles;
    private int highCycles;
    private boolean othersHoldClock;
    private boolean othersHoldData;
    private int othersChange = 30;

    I2cBehaviour(int filter) {
        scl = new FilteredLevel(filter);
        sda = new FilteredLevel(filter);
    }

    @Override
    public String module() {
        return "polymetron_i2c_controller";
    }

    @Override
    public Map<String, Integer> registers() {
        return Map.of("time_left", 16);
    }

    @Override
    public Map<String, Long> inputs(Random random, int cycle) {
        if (once(random, 400)) {
            lowCycles = cycles(random);
            highCycles = cycles(random);
            othersChange = 5 + random.nextInt(150);
        }
        if (once(random, enabled ? 1500 : 100)) {
            enabled = !enabled;
        }
        if (once(random, othersHoldClock ? 20 : 4 * othersChange)) {
            othersHoldClock = !othersHoldClock;
        }
        if (once(random, othersChange)) {
            othersHoldData = !othersHoldData;
        }
        boolean spike = once(random, 40);
        boolean commands = once(random, stage == Stage.IDLE ? 12 : 90);
        boolean isQuiet = stage == Stage.IDLE && !owned;
        return named(
                "CONTROL_ENABLE", bit(enabled),
                "COMMAND_START_pulse", bit(commands && once(random, isQuiet ? 1 : 3)),
                "COMMAND_WRITE_pulse", bit(commands && once(random, 2)),
                "COMMAND_READ_pulse", bit(commands && once(random, 2)),
                "COMMAND_LAST_pulse", bit(commands && once(random, 2)),
                "COMMAND_STOP_pulse", bit(commands && once(random, 3)),
                "DATA_BYTE", random.nextInt(256),
                "LOW_CYCLES", lowCycles,
                "HIGH_CYCLES", highCycles,
                "scl_in", bit(!drivesClock(enabled) && !othersHoldClock),
                "sda_in", bit((data || !enabled) && !othersHoldData != spike));
    }

    private static int cycles(Random random) {
        return once(random, 3) ? (int) any(random, 16) : random.nextInt(1 + random.nextInt(60));
    }

    /** Long times of the clock line, and an end of them. */
    @Override
    public Map<String, Long> put(Random random, int cycle) {
        if (!isTimed() || !once(random, 60)) {
            return Map.of();
        }
        left = 1 + (once(random, 3) ? (int) any(random, 16) : random.nextInt(4));
        return Map.of("time_left", left - 1L);
    }

    private boolean isTimed() {
        return stage != Stage.IDLE && stage != Stage.RISES;
    }

    private boolean drivesClock(boolean isOn) {
        return isOn
                && (stage == Stage.LOW_OLD
                        || stage == Stage.LOW_NEW
                        || stage == Stage.IDLE && owned);
    }

    @Override
    public Map<String, Long> step(Map<String, Long> in) {
        boolean isOn = isSet(in, "CONTROL_ENABLE");
        boolean level = sda.seen();
        boolean highEnds = stage == Stage.HIGH && left == 1;
        Piece piece = pieces.peek();
        boolean beaten =
                highEnds
                        && data
                        && !level
                        && (piece == Piece.START || piece == Piece.BIT && writes);
        boolean isLastBit = highEnds && piece == Piece.BIT && bitsLeft() == 1;
        boolean ends =
                beaten
                        || pieces.size() == 1
                                && (highEnds && piece == Piece.ACKNOWLEDGE
                                        || stage == Stage.CHANGED && left == 1);
        Map<String, Long> out =
                named(
                        "STATUS_BUSY", bit(stage != Stage.IDLE),
                        "STATUS_REFUSED", bit(refused),
                        "STATUS_LOST", bit(lost),
                        "STATUS_TAKEN", bit(taken),
                        "DATA_BYTE_load", bit(isLastBit && reads),
                        "PENDING_DONE_set", bit(ends),
                        "scl_out", 0,
                        "sda_out", 0,
                        "scl_drive", bit(drivesClock(isOn)),
                        "sda_drive", bit(isOn && !data));
        if (isTimed()) {
            out.put("time_left", left - 1L);
        }
        if (isLastBit && reads) {
            out.put("DATA_BYTE_new", (shift << 1 | bit(level)) & 0xFF);
        }
        if (!isOn) {
            release();
        } else if (stage == Stage.IDLE) {
            begin(in);
        } else {
            goOn(in, beaten);
        }
        lines(in);
        return out;
    }

    private long bitsLeft() {
        return pieces.stream().filter(each -> each == Piece.BIT).count();
    }

    private void begin(Map<String, Long> in) {
        writes = isSet(in, "COMMAND_WRITE_pulse");
        reads = isSet(in, "COMMAND_READ_pulse") && !writes;
        boolean starts = isSet(in, "COMMAND_START_pulse");
        boolean stops = isSet(in, "COMMAND_STOP_pulse");
        if (!starts && !writes && !reads && !stops) {
            return;
        }
        pieces.clear();
        if (starts) {
            pieces.add(Piece.START);
        }
        if (writes || reads) {
            pieces.addAll(java.util.Collections.nCopies(BITS, Piece.BIT));
            pieces.add(Piece.ACKNOWLEDGE);
        }
        if (stops) {
            pieces.add(Piece.STOP);
        }
        last = isSet(in, "COMMAND_LAST_pulse");
        refused = false;
        lost = false;
        shift = in.get("DATA_BYTE").intValue();
        if (starts && !owned) {
            data = true;
            stage = Stage.RISES;
        } else {
            timed(Stage.LOW_OLD, in.get("LOW_CYCLES") / 2);
        }
    }

    private void timed(Stage next, long cycles) {
        stage = next;
        left = (int) Math.max(1, cycles);
    }

    private void goOn(Map<String, Long> in, boolean beaten) {
        long low = in.get("LOW_CYCLES");
        Piece piece = pieces.peek();
        if (stage == Stage.RISES) {
            if (scl.seen() && (owned || piece != Piece.START || !taken)) {
                timed(Stage.HIGH, in.get("HIGH_CYCLES"));
            }
            return;
        }
        left--;
        if (left > 0) {
            return;
        }
        switch (stage) {
            case LOW_OLD -> {
                data =
                        switch (piece) {
                            case START -> true;
                            case BIT -> reads || (shift & 0x80) != 0;
                            case ACKNOWLEDGE -> writes || last;
                            case STOP -> false;
                        };
                timed(Stage.LOW_NEW, low - low / 2);
            }
            case LOW_NEW -> stage = Stage.RISES;
            case HIGH -> {
                if (beaten) {
                    stage = Stage.IDLE;
                    owned = false;
                    lost = true;
                    data = true;
                } else if (List.of(Piece.BIT, Piece.ACKNOWLEDGE).contains(piece)) {
                    owned = true;
                    shift = (shift << 1 | (int) bit(sda.seen())) & 0xFF;
                    if (piece == Piece.ACKNOWLEDGE) {
                        refused = writes && sda.seen();
                        writes = false;
                        reads = false;
                    }
                    next(low);
                } else {
                    data = piece == Piece.STOP;
                    timed(Stage.CHANGED, in.get("HIGH_CYCLES"));
                }
            }
            default -> {
                owned = piece == Piece.START;
                next(low);
            }
        }
    }

    private void next(long low) {
        pieces.remove();
        if (pieces.isEmpty()) {
            stage = Stage.IDLE;
        } else {
            timed(Stage.LOW_OLD, low / 2);
        }
    }

    private void release() {
        pieces.clear();
        stage = Stage.IDLE;
        owned = false;
        refused = false;
        lost = false;
        data = true;
    }

    /** A start and a stop, whosever they are. */
    private void lines(Map<String, Long> in) {
        if (scl.seen() && sdaBefore != sda.seen()) {
            taken = sdaBefore;
        }
        sdaBefore = sda.seen();
        scl.edge(isSet(in, "scl_in"));
        sda.edge(isSet(in, "sda_in"));
    }

    @Override
    public void reset() {
        release();
        scl.reset();
        sda.reset();
        sdaBefore = true;
        taken = false;
        shift = 0;
    }
}
