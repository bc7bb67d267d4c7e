package polymetron.elaborate;

import java.util.ArrayList;
import java.util.List;

/** Collects references that lead nowhere, in the order in which they are met. */
final class Dangling {
    private final List<DanglingReference> found = new ArrayList<>();

    /**
     * @param subject block, bus or domain that refers
     * @param sort what refers
     * @param name input, interface, source or parameter that refers; null where the subject itself does
     * @param what what is missing, in words
     */
    void missing(String subject, DanglingReference.Sort sort, String name, String what) {
        found.add(new DanglingReference(subject, sort, name, what));
    }

    List<DanglingReference> all() {
        return List.copyOf(found);
    }
}
