package polymetron.bench.machine;

import java.util.Map;
import polymetron.bench.block.BlockModel;
import polymetron.bench.block.I2cModel;
import polymetron.bench.block.SpiModel;
import polymetron.bench.part.SpiConverter;
import polymetron.bench.part.Thermometer;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.OutwardLink;
import polymetron.output.hardware.ConverterSamples;

/** Parts of the board that answer: each is put on the block that drives it. */
final class BoardParts {
    private BoardParts() {}

    static void connect(OutwardLink link, Map<InterfaceRef, BlockModel> models) {
        if (link.part() == null) {
            return;
        }
        for (Map.Entry<InterfaceRef, BlockModel> each : models.entrySet()) {
            if (each.getKey().block().equals(link.block().name())) {
                connect(each.getValue(), link.part().kind());
            }
        }
    }

    private static void connect(BlockModel model, String kind) {
        if (model instanceof SpiModel spi && kind.equals("spi-converter")) {
            spi.attach(
                    new SpiConverter(
                            ConverterSamples.BITS,
                            ConverterSamples.of(ConverterSamples.CHANNELS, ConverterSamples.BITS)));
        } else if (model instanceof I2cModel i2c && kind.equals("i2c-sensor")) {
            i2c.attach(new Thermometer());
        }
    }
}
