package polymetron.board;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.OutwardLink;
import polymetron.elaborate.SizedOutward;
import polymetron.elaborate.SizedPort;
import polymetron.library.Board;
import polymetron.library.Direction;
import polymetron.library.Vlnv;

/** The parts of a platform's board, who has taken them, and which of them a block could take. */
public final class Parts {
    private final ElaboratedPlatform platform;
    private final Map<String, OutwardLink> takers = new HashMap<>();

    private final Map<SizedOutward, List<Board.Part>> matching = new IdentityHashMap<>();

    public Parts(ElaboratedPlatform platform) {
        this.platform = platform;
        for (OutwardLink link : platform.outward()) {
            if (link.binding() != null && link.binding().part() != null) {
                takers.putIfAbsent(link.binding().part(), link);
            }
        }
    }

    /** The block that has taken a part. */
    public Optional<OutwardLink> taker(String part) {
        return Optional.ofNullable(takers.get(part));
    }

    /** The free parts that an outward interface can drive as it is. */
    public List<Board.Part> fitting(OutwardLink link) {
        // Blocks of one shape share its outward interfaces, and what fits one fits all.
        return matching.computeIfAbsent(link.form(), form -> matching(link)).stream()
                .filter(part -> !takers.containsKey(part.name()))
                .toList();
    }

    private List<Board.Part> matching(OutwardLink link) {
        return platform.board() == null
                ? List.of()
                : platform.board().parts().stream()
                        .filter(part -> link.form().type().partKinds().contains(part.kind()))
                        .filter(part -> differences(link, part).isEmpty())
                        .toList();
    }

    /** What differs between the ports of an outward interface and a part, in words; empty when they match. */
    public static List<String> differences(OutwardLink link, Board.Part part) {
        List<String> differences = new ArrayList<>();
        for (SizedPort port : link.form().ports()) {
            Optional<Board.Signal> signal = OutwardLink.signal(link.form(), port, part);
            if (signal.isEmpty()) {
                differences.add(
                        "%s has no signal %s; its signals are %s"
                                .formatted(
                                        part.name(),
                                        port.name(),
                                        part.signals().stream()
                                                .map(Board.Signal::name)
                                                .collect(Collectors.joining(", "))));
                continue;
            }
            if (port.width() != signal.get().width()) {
                differences.add(
                        "%s is %s wide, %s has %s lines"
                                .formatted(
                                        port.name(),
                                        port.width(),
                                        part.name(),
                                        signal.get().width()));
            }
            if (port.direction() != signal.get().direction()
                    && signal.get().direction() != Direction.BOTH) {
                differences.add(
                        "%s is %s, %s needs %s"
                                .formatted(
                                        port.name(),
                                        port.direction().words(),
                                        part.name(),
                                        signal.get().direction().words()));
            }
        }
        return differences;
    }

    /** The edits that give a block the parameters with which it drives a part. */
    public static List<Edit> parameterEdits(String block, Vlnv type, Board.Part part) {
        return part.drivers().stream()
                .filter(driver -> driver.type().equals(type))
                .findFirst()
                .map(
                        driver ->
                                driver.parameters().entrySet().stream()
                                        .sorted(Map.Entry.comparingByKey())
                                        .<Edit>map(
                                                entry ->
                                                        new Edit.SetParameter(
                                                                block,
                                                                entry.getKey(),
                                                                entry.getValue()))
                                        .toList())
                .orElse(List.of());
    }
}
