package polymetron.server.account;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.NullSource;
import org.junit.jupiter.params.provider.ValueSource;
import polymetron.server.store.Author;

/** What a header says of its author; it comes from anywhere. */
final class RequestAuthorTest {
    private static final String BROWSER = "12345678-1234-4123-8123-123456789abc";

    @Test
    void aNameIsReadAsItWasTyped() {
        assertThat(RequestAuthor.parse(BROWSER + " %C3%84da%20L."))
                .isEqualTo(new Author(UUID.fromString(BROWSER), "Äda L."));
        assertThat(RequestAuthor.parse(BROWSER))
                .isEqualTo(new Author(UUID.fromString(BROWSER), null));
    }

    @ParameterizedTest
    @NullSource
    @ValueSource(strings = {"", "Anna", "12345678-1234-4123-8123-123456789abc Anna B", "1-2-3-4-5"})
    void anotherFormIsNobody(String header) {
        assertThat(RequestAuthor.parse(header)).isEqualTo(Author.UNKNOWN);
    }

    @ParameterizedTest
    @ValueSource(strings = {"%0A", "%E2%80%AE", "%00", "%", "%zz", "%20%20"})
    void aNameThatCannotBeShownIsLeftOut(String name) {
        assertThat(RequestAuthor.parse(BROWSER + " " + name))
                .isEqualTo(new Author(UUID.fromString(BROWSER), null));
        assertThat(RequestAuthor.parse(BROWSER + " " + "a".repeat(81)).name()).isNull();
    }
}
