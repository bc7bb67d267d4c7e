package polymetron.finding;

import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import polymetron.edit.Edit;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.ResetInput;

/** A reset input is not connected, or to a domain that has no reset. */
final class NoResetRule implements Rule {
    @Override
    public String id() {
        return "input-without-reset";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Input without a reset";
    }

    @Override
    public String explanation() {
        return "Registers would not have their reset values, and the block may start in an"
                + " impossible state.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (ElaboratedBlock block : platform.blocks()) {
            for (ResetInput reset : block.type().resets()) {
                String name = block.block().domains().get(reset.name());
                Domain domain = name == null ? null : platform.domainIndex().get(name);
                if (domain == null) {
                    report.accept(
                            finding(
                                    block.name() + "." + reset.name(),
                                    "reset input %s of %s is not connected"
                                            .formatted(reset.name(), block.name()),
                                    fixes(platform, block, reset)));
                } else if (!domain.hasReset()) {
                    report.accept(
                            finding(
                                    block.name() + "." + reset.name(),
                                    "reset input %s of %s is in domain %s, which has no reset"
                                            .formatted(reset.name(), block.name(), name),
                                    DomainResetFixes.of(platform, domain)));
                }
            }
        }
    }

    /** Into the domain of its clock; where that is open too, into any that has a reset. */
    private static List<Fix> fixes(
            ElaboratedPlatform platform, ElaboratedBlock block, ResetInput reset) {
        String clock = block.block().domains().get(reset.clock());
        Domain clocked = clock == null ? null : platform.domainIndex().get(clock);
        if (clocked == null) {
            return DomainFixes.of(platform, block, reset.name());
        }
        Edit into = new Edit.SetDomain(block.name(), reset.name(), clock);
        String label = "Connect %s.%s to %s".formatted(block.name(), reset.name(), clock);
        if (clocked.hasReset()) {
            return List.of(new Fix(label, into));
        }
        return DomainResetFixes.of(platform, clocked).stream()
                .map(
                        fix ->
                                new Fix(
                                        label + ", " + fix.label().toLowerCase(Locale.ROOT),
                                        new Edit.Several(label, List.of(fix.edit(), into))))
                .toList();
    }
}
