package polymetron.server.store;

import java.util.UUID;

/**
 * Who makes a change, as far as they say; as long as there are no accounts, it is not checked.
 *
 * @param browser number that a browser has given itself; null for a program
 * @param name what they call themselves; null when they do not say
 */
public record Author(UUID browser, String name) {
    public static final Author UNKNOWN = new Author(null, null);
}
