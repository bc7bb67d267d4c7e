package polymetron.elaborate;

import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;

/**
 * What follows from an elaborated platform and is asked for several times, by rules and by views: worked out when it is
 * first asked for, and kept as long as the platform. Two that ask at once may both work it out; they get the same one.
 */
public final class WorkedOut {
    private final Map<Class<?>, Object> known = new ConcurrentHashMap<>();

    /** What is known of a sort, or what the work gives. */
    public <T> T once(Class<T> sort, Supplier<T> work) {
        Object found = known.get(sort);
        if (found == null) {
            T made = work.get();
            Object other = known.putIfAbsent(sort, made);
            found = other == null ? made : other;
        }
        return sort.cast(found);
    }
}
