package polymetron.finding;

import java.util.function.Consumer;
import polymetron.elaborate.DanglingReference;
import polymetron.elaborate.ElaboratedPlatform;

/** The document refers to something that is missing. */
final class DanglingReferenceRule implements Rule {
    @Override
    public String id() {
        return "dangling-reference";
    }

    @Override
    public Grade grade() {
        return Grade.ERROR;
    }

    @Override
    public String title() {
        return "Reference to something that is not there";
    }

    @Override
    public String explanation() {
        return "The rest of the platform is worked out without it, so addresses and files may lack"
                + " a part.";
    }

    @Override
    public void check(ElaboratedPlatform platform, Consumer<Finding> report) {
        for (DanglingReference reference : platform.dangling()) {
            report.accept(
                    finding(
                            reference.subject(),
                            reference.what(),
                            DanglingFixes.of(platform, reference)));
        }
    }
}
