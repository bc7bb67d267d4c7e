package polymetron.output.software;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Locale;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.expression.Value;
import polymetron.library.ParameterType;
import polymetron.text.Escape;

/** What software needs to know of a block's parameters, as properties of its devicetree node. */
final class DeviceTreeParameters {
    private static final int MILLIONTHS = 6;

    private DeviceTreeParameters() {}

    static void write(DeviceTreeWriter out, ElaboratedBlock block) {
        for (ParameterType parameter : block.type().parameters()) {
            if (parameter.macro() != null) {
                write(out, parameter, block.shape().parameters().get(parameter.name()));
            }
        }
    }

    private static void write(DeviceTreeWriter out, ParameterType parameter, Value value) {
        String name = "polymetron," + parameter.macro().toLowerCase(Locale.ROOT).replace('_', '-');
        switch (parameter.form()) {
            case BOOLEAN -> {
                if (value.isTrue()) {
                    out.line("%s;", name);
                }
            }
            case CHOICE, TEXT -> out.line("%s = \"%s\";", name, Escape.c(value.toString()));
            // A devicetree has no fractions.
            case REAL ->
                    out.line(
                            "%s-micro%s = <%s>;",
                            name, unit(parameter), millionths(value.toString()));
            case INTEGER, ADDRESS, SIZE -> {
                long number = value.asNumber().longValue();
                if (number >>> 32 == 0) {
                    out.line("%s = <%s>;", name, number);
                } else {
                    out.line("%s = /bits/ 64 <0x%x>;", name, number);
                }
            }
        }
    }

    private static String unit(ParameterType parameter) {
        return "V".equals(parameter.unit()) ? "volt" : "";
    }

    /** A decimal fraction times a million, rounded half up. */
    static long millionths(String number) {
        return new BigDecimal(number)
                .movePointRight(MILLIONTHS)
                .setScale(0, RoundingMode.HALF_UP)
                .longValueExact();
    }
}
