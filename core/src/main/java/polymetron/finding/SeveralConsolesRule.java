package polymetron.finding;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.TargetRange;
import polymetron.software.Consoles;
import polymetron.software.SoftwareView;

/** A program reaches several UARTs, and it is not clear which of them is its console. */
final class SeveralConsolesRule extends PlainRule {
    SeveralConsolesRule() {
        super(
                "consoles-several",
                Grade.NOTE,
                "Several UARTs, one console",
                "Software prints to one of them: the devicetree names it as standard output, the"
                    + " header as PLATFORM_CONSOLE_BASE, and the bench shows it. It is the one on"
                    + " the console of the board, or else the one with the lowest address.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        Set<List<String>> told = new HashSet<>();
        for (SoftwareView view : SoftwareView.all(platform)) {
            List<TargetRange> uarts =
                    view.devices().stream()
                            .filter(device -> Consoles.at(device).isPresent())
                            .toList();
            long onBoard =
                    uarts.stream()
                            .filter(uart -> Consoles.isOnBoardConsole(platform, uart.block()))
                            .count();
            if (uarts.size() < 2 || onBoard == 1) {
                continue;
            }
            String console = view.console().orElseThrow().label();
            String others =
                    uarts.stream()
                            .map(TargetRange::label)
                            .filter(label -> !label.equals(console))
                            .collect(Collectors.joining(", "));
            if (told.add(List.of(console, others))) {
                report.accept(
                        finding(
                                console,
                                "the console is %s; %s could be it as well"
                                        .formatted(console, others),
                                List.of()));
            }
        }
    }
}
