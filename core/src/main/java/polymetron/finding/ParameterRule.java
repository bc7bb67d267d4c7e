package polymetron.finding;

import java.util.List;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.ParameterFault;

/** A parameter has no value or an impossible one. */
final class ParameterRule implements Rule {
    @Override
    public String id() {
        return "parameter-value";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Parameter without a possible value";
    }

    @Override
    public String explanation() {
        return "Until it has one, the block is worked out with the default value.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBlock block : platform.blocks()) {
            for (ParameterFault fault : block.shape().faults()) {
                String name = fault.parameter().name();
                Fix reset =
                        new Fix(
                                "Set %s to %s"
                                        .formatted(
                                                fault.parameter().title(),
                                                fault.parameter().initial()),
                                new Edit.SetParameter(block.name(), name, null));
                // A default can be wrong because of what it depends on; setting it changes nothing.
                boolean isSet = block.block().parameters().containsKey(name);
                report.accept(
                        finding(
                                block.name() + "." + name,
                                fault.message(),
                                isSet ? List.of(reset) : List.of()));
            }
        }
    }
}
