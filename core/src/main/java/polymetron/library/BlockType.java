package polymetron.library;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/**
 * A block type of the library, as its definition file says it.
 *
 * @param defaultName name that a new block gets, unless its board part gives it one
 * @param hardware how it is built; null when it is not yet
 * @param bridge what leads where, for a bridge; null for anything else
 * @param streamPart what it settles between stream ends that differ; null for anything else
 * @param needs hard block that only some devices have; null for one that fits any device
 * @param provides what it is to the rest of a platform
 */
public record BlockType(
        String format,
        Vlnv identity,
        Kind kind,
        String title,
        String summary,
        String description,
        String defaultName,
        List<ParameterType> parameters,
        List<ClockInput> clocks,
        List<ResetInput> resets,
        List<ClockOutput> clockOutputs,
        List<ResetOutput> resetOutputs,
        List<BusInterfaceType> busInterfaces,
        List<StreamType> streams,
        List<InterruptPort> interrupts,
        List<OutwardInterface> outward,
        List<RegisterType> registers,
        List<MemoryType> memories,
        List<RateType> rates,
        Resources resources,
        SoftwareBinding software,
        HardwareBinding hardware,
        BridgeType bridge,
        StreamPartType streamPart,
        String needs,
        List<Capability> provides) {
    public static final String FORMAT = "polymetron-block-type/2";

    public BlockType {
        parameters = Lists.orEmpty(parameters);
        clocks = Lists.orEmpty(clocks);
        resets = Lists.orEmpty(resets);
        clockOutputs = Lists.orEmpty(clockOutputs);
        resetOutputs = Lists.orEmpty(resetOutputs);
        busInterfaces = Lists.orEmpty(busInterfaces);
        streams = Lists.orEmpty(streams);
        interrupts = Lists.orEmpty(interrupts);
        outward = Lists.orEmpty(outward);
        registers = Lists.orEmpty(registers);
        memories = Lists.orEmpty(memories);
        rates = Lists.orEmpty(rates);
        provides = Lists.orEmpty(provides);
        software =
                software == null
                        ? new SoftwareBinding(null, null, null, null, null, null)
                        : software;
        if (software.compatible().isEmpty() && !identity.vendor().equals(Vlnv.OURS)) {
            software = software.with(compatible(identity));
        }
    }

    /** What a devicetree calls a block whose definition does not say: vendor, name and version. */
    private static String compatible(Vlnv identity) {
        String name = "%s-%s".formatted(identity.name(), identity.version());
        return "%s,%s".formatted(plain(identity.vendor()), plain(name));
    }

    private static String plain(String text) {
        return text.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9.-]", "-");
    }

    /** What it is to the rest of a platform, of one sort. */
    public <T extends Capability> List<T> provides(Class<T> sort) {
        // Asked of every block by every rule that is about one sort; most are none of it.
        List<T> found = List.of();
        for (Capability each : provides) {
            if (sort.isInstance(each)) {
                found = found.isEmpty() ? new ArrayList<>(provides.size()) : found;
                found.add(sort.cast(each));
            }
        }
        return found;
    }

    public Optional<ParameterType> parameter(String name) {
        return parameters.stream().filter(parameter -> parameter.name().equals(name)).findFirst();
    }
}
