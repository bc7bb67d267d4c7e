package polymetron.output;

import java.util.Locale;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.platform.Names;
import polymetron.software.SoftwareView;

/**
 * Names of the files of a hand-off. They share a base name, made from the platform's title; where a platform has several
 * programs, that of the program follows it.
 *
 * @param base the base name
 * @param fingerprint see {@link Fingerprint}
 * @param hasSeveral whether there are several programs
 */
public record HandoffNames(String base, String fingerprint, boolean hasSeveral) {
    public static HandoffNames of(ElaboratedPlatform platform) {
        return new HandoffNames(
                Names.fromTitle(platform.platform().name()),
                Fingerprint.of(platform),
                SoftwareView.all(platform).size() > 1);
    }

    /** Name of a file that is made once for the whole platform. */
    public String of(String ending) {
        return base + ending;
    }

    /** Name of a file that is made for each program. */
    public String of(SoftwareView view, String ending) {
        return stem(view) + ending;
    }

    private String stem(SoftwareView view) {
        return hasSeveral ? base + "_" + view.name() : base;
    }

    /** Name of a file with a fixed name, where there is one program. */
    public String fixed(SoftwareView view, String name, String ending) {
        return (hasSeveral ? name + "_" + view.name() : name) + ending;
    }

    /** Include guard of the header. */
    public String guard(SoftwareView view) {
        return stem(view).toUpperCase(Locale.ROOT) + "_H";
    }
}
