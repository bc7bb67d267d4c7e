package polymetron.bench.machine;

import java.util.List;
import java.util.Optional;
import polymetron.bench.block.BlockModel;
import polymetron.bench.block.GpioModel;
import polymetron.bench.block.PwmModel;
import polymetron.bench.part.Battery;
import polymetron.bench.part.ConverterSignal;
import polymetron.bench.part.LockChamber;
import polymetron.bench.part.SurroundingModel;
import polymetron.library.Surrounding;

/** What a board says to be around it, with its model on the parts that the platform uses; acts a step each millisecond. */
public final class SurroundingOfBoard {
    private static final int STEPS_A_SECOND = 1000;

    private final Surrounding described;
    private final SurroundingModel model;
    private final long clockHz;
    private boolean acts;
    private long steps;

    private SurroundingOfBoard(Surrounding described, SurroundingModel model, long clockHz) {
        this.described = described;
        this.model = model;
        this.clockHz = clockHz;
    }

    /** Empty where the platform drives or measures nothing of it. */
    static Optional<SurroundingOfBoard> of(
            Surrounding described, Surroundings around, long clockHz) {
        SurroundingModel model =
                switch (described.kind()) {
                    case Surrounding.LOCK_CHAMBER -> chamber(described, around);
                    case Surrounding.BATTERY -> battery(described.parts().get("voltage"), around);
                    default -> null;
                };
        return Optional.ofNullable(model)
                .map(each -> new SurroundingOfBoard(described, each, clockHz));
    }

    private static SurroundingModel battery(String part, Surroundings around) {
        return part == null || around.measured(part).isEmpty()
                ? null
                : new Battery(
                        () -> around.level(part, 0), steps -> around.setVoltage(part, 0, steps));
    }

    private static SurroundingModel chamber(Surrounding described, Surroundings around) {
        BlockModel drives = around.at(described.parts().get("drives")).orElse(null);
        if (drives == null) {
            return null;
        }
        return new LockChamber(new Wires(described, around, drives));
    }

    private record Wires(Surrounding described, Surroundings around, BlockModel drives)
            implements LockChamber.Wires {
        private static final double OPENS = 0.9;
        private static final double SHUTS = 0.1;

        @Override
        public double drive(int gate) {
            return switch (drives) {
                case PwmModel pwm -> gate < pwm.channels() ? pwm.part(gate) : 0;
                case GpioModel lines -> (lines.driven() >> gate & 1) == 0 ? SHUTS : OPENS;
                default -> 0;
            };
        }

        @Override
        public void ends(long pressed) {
            around.move(described.parts().get("ends"), pressed);
        }

        @Override
        public void gauge(int channel, int steps) {
            around.setVoltage(described.parts().get("gauges"), channel, steps);
        }

        @Override
        public void encoder(double[] opening) {
            around.signal(described.parts().get("encoder"))
                    .ifPresent(signal -> signal.follow(opening));
        }
    }

    public Surrounding described() {
        return described;
    }

    public List<SurroundingModel.Reading> readings() {
        return model.readings();
    }

    public boolean acts() {
        return acts;
    }

    /** Whether it moves a part now, which cannot be moved otherwise then. */
    boolean holds(String part) {
        return acts && described.parts().containsValue(part);
    }

    /** Lets it act from a time on, or not. */
    void set(boolean on, long cycle, Surroundings around) {
        acts = on;
        while (at(steps) <= cycle) {
            steps++;
        }
        around.signal(described.parts().get("encoder"))
                .ifPresent(
                        signal ->
                                signal.set(
                                        on
                                                ? ConverterSignal.Shape.FOLLOWS
                                                : ConverterSignal.Shape.QUIET));
    }

    void reset() {
        steps = 0;
        model.reset();
    }

    private long at(long step) {
        return step * clockHz / STEPS_A_SECOND;
    }

    long next() {
        return acts ? at(steps) : BlockModel.NEVER;
    }

    void advance(long cycle) {
        while (acts && at(steps) <= cycle) {
            steps++;
            model.step();
        }
    }
}
