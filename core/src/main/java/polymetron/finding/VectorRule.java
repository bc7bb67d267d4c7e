package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;
import polymetron.expression.Expression;
import polymetron.library.ParameterType;
import polymetron.software.Hart;
import polymetron.software.Harts;

/** A processor starts, or goes on a trap, where there is no executable memory. */
final class VectorRule implements Rule {
    @Override
    public String id() {
        return "vector-outside-memory";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Reset or trap vector outside executable memory";
    }

    @Override
    public String explanation() {
        return "The processor would fetch its first instruction, or its trap handler, where nothing"
                + " answers.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (Hart hart : Harts.of(platform).all()) {
            if (hart.index() == 0) {
                platform.space(new InterfaceRef(hart.block().name(), hart.role().fetch()))
                        .ifPresent(
                                space -> {
                                    // Without any memory to fetch from that is what is said.
                                    if (space.ranges().stream()
                                            .noneMatch(each -> each.form().type().executable())) {
                                        return;
                                    }
                                    check(space, hart.role().reset(), 0, report);
                                    check(space, hart.role().trap(), 0x40, report);
                                });
            }
        }
    }

    /**
     * @param offset where in a memory the vector would be
     */
    private void check(
            AddressSpace space, Expression vector, long offset, Consumer<Finding> report) {
        ElaboratedBlock processor = space.initiator().block();
        Optional<ParameterType> parameter = vector.parameter().flatMap(processor.type()::parameter);
        long address = processor.shape().number(vector, 0);
        if (space.at(address).filter(found -> found.form().type().executable()).isPresent()) {
            return;
        }
        List<Fix> fixes = new ArrayList<>();
        String title = parameter.map(ParameterType::title).orElse("vector");
        for (TargetRange memory : space.ranges()) {
            if (parameter.isEmpty() || !memory.form().type().executable()) {
                continue;
            }
            Address inside = new Address(memory.range().base() + offset);
            fixes.add(
                    new Fix(
                            "Set %s to %s, in %s".formatted(title, inside, memory.label()),
                            new Edit.SetParameter(
                                    processor.name(), vector.toString(), inside.toString())));
        }
        report.accept(
                finding(
                        processor.name() + "." + vector,
                        "%s of %s is %s, where %s finds no executable memory"
                                .formatted(
                                        title,
                                        processor.name(),
                                        Address.format(address),
                                        space.initiator().label()),
                        fixes));
    }
}
