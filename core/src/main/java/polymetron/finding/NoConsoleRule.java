package polymetron.finding;

import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Board;
import polymetron.software.Consoles;
import polymetron.software.Harts;

/** The board has a console, and the platform with a processor does not drive it. */
final class NoConsoleRule extends PlainRule {
    NoConsoleRule() {
        super(
                "console-missing",
                Grade.NOTE,
                "Console of the board that nothing drives",
                "Software prints to it first; without it there is nothing to see when something"
                        + " goes wrong.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        boolean hasProcessor = !Harts.of(platform).all().isEmpty();
        if (platform.board() == null || !hasProcessor) {
            return;
        }
        Set<String> driven =
                platform.outward().stream()
                        .filter(link -> link.part() != null)
                        .map(link -> link.part().kind())
                        .collect(Collectors.toSet());
        for (Board.Part part : platform.board().parts()) {
            if (part.kind().equals(Consoles.BOARD_PART) && !driven.contains(Consoles.BOARD_PART)) {
                report.accept(
                        finding(
                                part.name(),
                                "%s of %s is not driven"
                                        .formatted(part.title(), platform.board().title()),
                                List.of()));
            }
        }
    }
}
