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
import polymetron.elaborate.TargetRange;
import polymetron.library.ParameterType;

/** A processor starts, or goes on a trap, where there is no executable memory. */
final class VectorRule implements Rule {
    private static final List<String> VECTORS = List.of("RESET_VECTOR", "TRAP_VECTOR");

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
        for (AddressSpace space : platform.spaces()) {
            if (space.initiator().fetches()) {
                for (String vector : VECTORS) {
                    check(space, vector, report);
                }
            }
        }
    }

    private void check(AddressSpace space, String vector, Consumer<Finding> report) {
        ElaboratedBlock processor = space.initiator().block();
        Optional<ParameterType> parameter = processor.type().parameter(vector);
        if (parameter.isEmpty()) {
            return;
        }
        long address = processor.shape().number(vector);
        if (space.at(address).isPresent()) {
            return;
        }
        List<Fix> fixes = new ArrayList<>();
        long offset = vector.equals("TRAP_VECTOR") ? 0x40 : 0;
        for (TargetRange memory : space.ranges()) {
            Address inside = new Address(memory.range().base() + offset);
            fixes.add(
                    new Fix(
                            "Set %s to %s, in %s"
                                    .formatted(parameter.get().title(), inside, memory.label()),
                            new Edit.SetParameter(processor.name(), vector, inside.toString())));
        }
        report.accept(
                finding(
                        processor.name() + "." + vector,
                        "%s of %s is %s, where %s finds no executable memory"
                                .formatted(
                                        parameter.get().title(),
                                        processor.name(),
                                        Address.format(address),
                                        space.initiator().label()),
                        fixes));
    }
}
