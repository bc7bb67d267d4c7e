package polymetron.software;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.SortedSet;
import java.util.TreeSet;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Capability;

/**
 * What a hart executes: RV32I and extensions (RISC-V Unprivileged ISA, chapter "ISA Extension Naming Conventions").
 *
 * @param extensions lower-case names after the base, in their canonical order: letters first, then the others by name
 */
public record InstructionSet(List<String> extensions) {
    /** Extensions of one letter in the order of the specification's table. */
    private static final String LETTERS = "mafdqlcbkjtpvh";

    private static final String COUNTERS = "zicntr";

    public static InstructionSet of(ElaboratedPlatform platform, Hart hart) {
        SortedSet<String> names = new TreeSet<>(List.of("zicsr", "zifencei"));
        for (Capability.Extension extension : hart.role().extensions()) {
            if (extension.when() == null || hart.block().shape().number(extension.when(), 1) != 0) {
                names.add(extension.name());
            }
        }
        // Zicntr has the time, which is that of a machine timer.
        if (MachineTimer.serving(platform, hart).isEmpty()) {
            names.remove(COUNTERS);
        }
        return ordered(names);
    }

    /** What several harts have in common. */
    static InstructionSet common(ElaboratedPlatform platform, Collection<Hart> harts) {
        SortedSet<String> names = null;
        for (Hart hart : harts) {
            List<String> own = of(platform, hart).extensions();
            if (names == null) {
                names = new TreeSet<>(own);
            }
            names.retainAll(own);
        }
        return ordered(names == null ? new TreeSet<>() : names);
    }

    private static InstructionSet ordered(SortedSet<String> names) {
        List<String> ordered = new ArrayList<>();
        for (char letter : LETTERS.toCharArray()) {
            if (names.remove(String.valueOf(letter))) {
                ordered.add(String.valueOf(letter));
            }
        }
        ordered.addAll(names);
        return new InstructionSet(List.copyOf(ordered));
    }

    /** The same without an extension. */
    public InstructionSet without(String extension) {
        return new InstructionSet(
                extensions.stream().filter(each -> !each.equals(extension)).toList());
    }

    public boolean has(String extension) {
        return extensions.contains(extension);
    }

    public boolean multiplies() {
        return has("m");
    }

    public boolean compresses() {
        return has("c");
    }

    public boolean compressed() {
        return has("c");
    }

    public boolean counters() {
        return has(COUNTERS);
    }

    /** The whole name, such as {@code rv32imc_zicsr_zifencei}. */
    public String name() {
        StringBuilder name = new StringBuilder("rv32i");
        for (String extension : extensions) {
            name.append(extension.length() == 1 ? extension : "_" + extension);
        }
        return name.toString();
    }

    /**
     * The options by which GCC compiles for it. Version 2.2 of the specification has the control and status registers in
     * the base, so that compilers which do not know them as an extension take the name too.
     */
    public String compilerOptions() {
        StringBuilder name = new StringBuilder("rv32i");
        extensions.stream().filter(each -> each.length() == 1).forEach(name::append);
        return "-march=%s -mabi=ilp32 -misa-spec=2.2".formatted(name);
    }
}
