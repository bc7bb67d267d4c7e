package polymetron.handoff;

import java.util.ArrayList;
import java.util.List;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.expression.Value;

/**
 * What a processor executes (RISC-V Unprivileged ISA, chapter "ISA Extension Naming Conventions").
 *
 * @param multiplies extension M
 * @param compressed extension C
 * @param counters extension Zicntr
 */
public record InstructionSet(boolean multiplies, boolean compressed, boolean counters) {
    /** A processor without such parameters has everything. */
    public static InstructionSet of(ElaboratedBlock processor) {
        Value multiplier = processor.shape().parameters().get("MULTIPLIER");
        return new InstructionSet(
                multiplier == null || !multiplier.toString().equals("none"),
                isOn(processor, "COMPRESSED"),
                isOn(processor, "COUNTERS"));
    }

    private static boolean isOn(ElaboratedBlock processor, String parameter) {
        Value value = processor.shape().parameters().get(parameter);
        return value != null && value.isTrue();
    }

    /** Its extensions after the base, in their canonical order. */
    public List<String> extensions() {
        List<String> names = new ArrayList<>();
        if (multiplies) {
            names.add("m");
        }
        if (compressed) {
            names.add("c");
        }
        if (counters) {
            names.add("zicntr");
        }
        names.add("zicsr");
        return names;
    }

    /** The name that compilers take, such as {@code rv32imc_zicsr}. */
    public String name() {
        StringBuilder name = new StringBuilder("rv32i");
        for (String extension : extensions()) {
            name.append(extension.length() == 1 ? extension : "_" + extension);
        }
        return name.toString();
    }
}
