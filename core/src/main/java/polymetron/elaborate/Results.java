package polymetron.elaborate;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Results of passes over one platform: each is made on the first request, and kept as long as the platform. Two that ask
 * at once may both make it; they get the same one.
 */
final class Results {
    /** The pass that is at work in a thread; null for none. */
    private static final ThreadLocal<Pass<?>> AT_WORK = new ThreadLocal<>();

    private final Map<Pass<?>, Object> known = new ConcurrentHashMap<>();

    /**
     * @throws IllegalStateException when a pass asks for one that it does not name
     */
    <T> T of(ElaboratedPlatform platform, Pass<T> pass) {
        Pass<?> asking = AT_WORK.get();
        if (asking != null && !asking.needs().contains(pass)) {
            throw new IllegalStateException(
                    "pass '%s' uses '%s', which it does not name".formatted(asking, pass));
        }
        Object found = known.get(pass);
        if (found == null) {
            T made = make(platform, pass, asking);
            Object other = known.putIfAbsent(pass, made);
            found = other == null ? made : other;
        }
        @SuppressWarnings("unchecked") // only what a pass made is kept with it
        T result = (T) found;
        return result;
    }

    private static <T> T make(ElaboratedPlatform platform, Pass<T> pass, Pass<?> asking) {
        AT_WORK.set(pass);
        try {
            return pass.run(platform);
        } finally {
            if (asking == null) {
                AT_WORK.remove();
            } else {
                AT_WORK.set(asking);
            }
        }
    }
}
