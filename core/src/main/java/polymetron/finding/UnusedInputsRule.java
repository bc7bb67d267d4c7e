package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.SizedInterrupt;

/** A controller has many more inputs than anything drives. A few to spare are nothing to talk about. */
final class UnusedInputsRule extends PlainRule {
    private static final int SPARE = 16;

    UnusedInputsRule() {
        super(
                "interrupt-inputs-unused",
                Grade.NOTE,
                "Interrupt inputs that nothing drives",
                "Each input takes logic for its priority and its enable bits, and software may take"
                        + " its number for one that comes.");
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (var block : platform.blocks()) {
            for (SizedInterrupt port : block.shape().interrupts()) {
                if (port.isSource() || port.count() <= SPARE) {
                    continue;
                }
                List<Integer> driven =
                        platform.interrupts().stream()
                                .filter(InterruptLink::isConnected)
                                .filter(link -> link.sinkBlock() == block)
                                .filter(link -> link.wire().sink().equals(port.name()))
                                .map(link -> link.wire().input())
                                .filter(port::hasInput)
                                .distinct()
                                .toList();
                long unused = port.count() - driven.size();
                if (unused > SPARE && unused * 4 > port.count() * 3L) {
                    int highest = driven.stream().max(Integer::compare).orElse(port.first());
                    String parameter =
                            port.type().count() == null
                                    ? null
                                    : port.type().count().parameter().orElse(null);
                    report.accept(
                            finding(
                                    block.name() + "." + port.name(),
                                    "%s of %s inputs of %s are driven by nothing"
                                            .formatted(unused, port.count(), block.name()),
                                    parameter != null
                                            ? List.of(
                                                    new Fix(
                                                            "Give %s %s inputs"
                                                                    .formatted(
                                                                            block.name(), highest),
                                                            new Edit.SetParameter(
                                                                    block.name(),
                                                                    parameter,
                                                                    Integer.toString(highest))))
                                            : List.of()));
                }
            }
        }
    }
}
