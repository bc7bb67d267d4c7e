package polymetron.output.hardware;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeMap;
import java.util.stream.Collectors;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.OutwardLink;
import polymetron.elaborate.SizedPort;
import polymetron.output.HandoffFile;
import polymetron.verilog.ModuleHeader;

/**
 * Stand-ins for the parts of the board in simulation: a module for each kind of part that the library has one for, with ports
 * that are called like those of the interface that it is on.
 */
final class PartStandIns {
    /** Kinds of chips that keep what is put there by a task of the stand-in. */
    static final Set<String> KEEPING = Set.of("serial-flash", "external-memory");

    /** Kind whose samples come from a file, with its channels and bits. */
    private static final String CONVERTER = "spi-converter";

    private final ElaboratedPlatform platform;

    PartStandIns(ElaboratedPlatform platform) {
        this.platform = platform;
    }

    /** The module that stands in for what an interface leads to. */
    Optional<String> module(OutwardLink link) {
        if (link.part() == null) {
            return Optional.empty();
        }
        String text = platform.library().hardware().ofParts().get(link.part().kind());
        // A user's own block may name its ports otherwise.
        return text == null || !portsOf(text).equals(portsOf(link))
                ? Optional.empty()
                : Optional.of(moduleOf(link.part().kind()));
    }

    /** Parameters of the stand-in that the hardware of the block has as well, as {@code #(…) }; empty for none. */
    String parameters(OutwardLink link) {
        ModuleHeader header =
                ModuleHeader.of(platform.library().hardware().ofParts().get(link.part().kind()));
        Map<String, String> given = new TreeMap<>();
        if (link.part().kind().equals(CONVERTER)) {
            ConverterShape shape = ConverterShape.of(link.part());
            given.put("CHANNELS", Integer.toString(shape.channels()));
            given.put("BITS", Integer.toString(shape.bits()));
            given.put("FILE", "\"%s\"".formatted(shape.file()));
            return list(given);
        }
        BlockModule.parameters(platform, link.block())
                .forEach(
                        (name, value) -> {
                            if (header.defaults().containsKey(name)) {
                                given.put(name, value);
                            }
                        });
        return list(given);
    }

    private static String list(Map<String, String> given) {
        return given.isEmpty()
                ? ""
                : given.entrySet().stream()
                        .map(each -> ".%s(%s)".formatted(each.getKey(), each.getValue()))
                        .collect(Collectors.joining(", ", "#(", ") "));
    }

    private static Set<String> portsOf(String text) {
        return ModuleHeader.of(text).ports().stream()
                .map(ModuleHeader.Port::name)
                .collect(Collectors.toSet());
    }

    private static Set<String> portsOf(OutwardLink link) {
        return link.form().ports().stream().map(SizedPort::name).collect(Collectors.toSet());
    }

    static String moduleOf(String kind) {
        return "polymetron_part_" + kind.replace('-', '_');
    }

    private SortedSet<String> kinds() {
        SortedSet<String> kinds = AroundTheBoard.kinds(platform);
        platform.outward().stream()
                .filter(link -> module(link).isPresent())
                .forEach(link -> kinds.add(link.part().kind()));
        return kinds;
    }

    /** Those of the converters that are used, in an order that does not change. */
    private List<ConverterShape> shapes() {
        return platform.outward().stream()
                .filter(link -> module(link).isPresent())
                .filter(link -> link.part().kind().equals(CONVERTER))
                .map(link -> ConverterShape.of(link.part()))
                .distinct()
                .sorted(
                        Comparator.comparingInt(ConverterShape::channels)
                                .thenComparingInt(ConverterShape::bits))
                .toList();
    }

    /** Files of the modules, in the folder of the test bench. */
    List<String> sources() {
        return kinds().stream().map(kind -> moduleOf(kind) + ".v").toList();
    }

    List<HandoffFile> files() {
        List<HandoffFile> files = new ArrayList<>();
        for (String kind : kinds()) {
            files.add(
                    new HandoffFile(
                            "sim/" + moduleOf(kind) + ".v",
                            "stand-in for a part",
                            platform.library().hardware().ofParts().get(kind)));
        }
        shapes().forEach(
                        shape ->
                                files.add(
                                        new HandoffFile(
                                                "sim/" + shape.file(),
                                                "samples of a converter",
                                                ConverterSamples.memoryFile(shape))));
        return files;
    }
}
