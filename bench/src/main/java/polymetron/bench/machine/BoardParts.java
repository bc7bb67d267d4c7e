package polymetron.bench.machine;

import java.util.Map;
import java.util.Optional;
import polymetron.bench.block.AnalogMonitorModel;
import polymetron.bench.block.BlockModel;
import polymetron.bench.block.ConverterReaderModel;
import polymetron.bench.block.GpioModel;
import polymetron.bench.block.I2cModel;
import polymetron.bench.block.OwnBlockModel;
import polymetron.bench.block.PpsTimestampModel;
import polymetron.bench.block.SpiModel;
import polymetron.bench.part.ConverterSignal;
import polymetron.bench.part.SpiConverter;
import polymetron.bench.part.SpiPart;
import polymetron.bench.part.Thermometer;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.OutwardLink;
import polymetron.library.Board;
import polymetron.library.Capability;
import polymetron.output.hardware.ConverterSamples;
import polymetron.output.hardware.ConverterShape;

/** Parts of the board that answer: each is put on the block that drives it. */
final class BoardParts {
    private static final long STEPS = 1 << Capability.AnalogInputs.BITS;

    private BoardParts() {}

    /** What a part puts on the lines of the block that it is on; nothing where it cannot be moved. */
    static void move(OutwardLink link, BlockModel model, long levels) {
        switch (model) {
            case OwnBlockModel own -> own.set(link.form().ports().getFirst().name(), levels);
            case GpioModel lines -> lines.setOutside((int) levels);
            case PpsTimestampModel seconds -> seconds.setPulse((levels & 1) != 0);
            case AnalogMonitorModel monitor -> {
                // More channels have no place in the levels.
                int shown = Math.min(monitor.channels(), Long.SIZE / Capability.AnalogInputs.BITS);
                for (int channel = 0; channel < shown; channel++) {
                    long steps = levels >> Capability.AnalogInputs.BITS * channel;
                    monitor.setLevel(channel, (int) (steps & STEPS - 1));
                }
            }
            default -> {}
        }
    }

    static void connect(OutwardLink link, Map<InterfaceRef, BlockModel> models) {
        if (link.part() == null) {
            return;
        }
        for (Map.Entry<InterfaceRef, BlockModel> each : models.entrySet()) {
            if (each.getKey().block().equals(link.block().name())) {
                connect(each.getValue(), link.part());
            }
        }
    }

    private static SpiConverter converter(Board.Part part) {
        ConverterShape shape = ConverterShape.of(part);
        int[][] recording = ConverterSamples.of(shape.channels(), shape.bits());
        return new SpiConverter(shape.bits(), new ConverterSignal(recording, shape.bits()));
    }

    /** What a converter on a block measures. */
    static Optional<ConverterSignal> signal(BlockModel model) {
        return switch (model) {
            case ConverterReaderModel reader -> signal(reader.part());
            case SpiModel spi -> spi.parts().stream().findFirst().flatMap(BoardParts::signal);
            default -> Optional.empty();
        };
    }

    private static Optional<ConverterSignal> signal(SpiPart part) {
        return part instanceof SpiConverter converter
                ? Optional.of(converter.signal())
                : Optional.empty();
    }

    private static void connect(BlockModel model, Board.Part part) {
        String kind = part.kind();
        if (model instanceof SpiModel spi && kind.equals("spi-converter")) {
            spi.attach(converter(part));
        } else if (model instanceof ConverterReaderModel reader && kind.equals("spi-converter")) {
            reader.attach(converter(part));
        } else if (model instanceof I2cModel i2c && kind.equals("i2c-sensor")) {
            i2c.attach(new Thermometer());
        }
    }
}
