package polymetron.elaborate;

import java.util.List;
import java.util.function.Function;

/**
 * A named step of the analysis: what follows from an elaborated platform, worked out once for all who ask. A pass may use the
 * platform and the results of the passes that it names, and nothing else; asking for another one from within is an error of
 * the program, so what depends on what can be read off the passes.
 *
 * <p>A result must not be changed by anybody. A pass is a constant of the class that it makes.
 *
 * @param <T> what it makes
 */
public final class Pass<T> {
    private final String name;
    private final List<Pass<?>> needs;
    private final Function<ElaboratedPlatform, T> work;

    private Pass(String name, List<Pass<?>> needs, Function<ElaboratedPlatform, T> work) {
        this.name = name;
        this.needs = needs;
        this.work = work;
    }

    /**
     * @param name for a person, in words
     * @param work must not depend on anything but the platform and the results of what it needs
     * @param needs passes whose results the work asks for
     */
    public static <T> Pass<T> named(
            String name, Function<ElaboratedPlatform, T> work, Pass<?>... needs) {
        return new Pass<>(name, List.of(needs), work);
    }

    public String name() {
        return name;
    }

    /** Passes whose results it uses. */
    public List<Pass<?>> needs() {
        return needs;
    }

    T run(ElaboratedPlatform platform) {
        return work.apply(platform);
    }

    @Override
    public String toString() {
        return name;
    }
}
