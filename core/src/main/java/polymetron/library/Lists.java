package polymetron.library;

import java.util.List;

/** Lists that a document may leave out. */
final class Lists {
    private Lists() {}

    static <T> List<T> orEmpty(List<T> list) {
        return list == null ? List.of() : List.copyOf(list);
    }
}
