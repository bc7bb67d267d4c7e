package polymetron.finding;

import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Board;
import polymetron.library.Kind;
import polymetron.serial.Uart;

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
        boolean hasProcessor =
                platform.blocks().stream().anyMatch(block -> block.kind() == Kind.PROCESSOR);
        if (platform.board() == null || !hasProcessor) {
            return;
        }
        Set<String> driven =
                platform.outward().stream()
                        .filter(link -> link.part() != null)
                        .map(link -> link.part().kind())
                        .collect(Collectors.toSet());
        for (Board.Part part : platform.board().parts()) {
            if (part.kind().equals(Uart.CONSOLE_PART) && !driven.contains(Uart.CONSOLE_PART)) {
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
