package polymetron.output;

import java.nio.charset.StandardCharsets;

/**
 * One file of a hand-off.
 *
 * @param path relative path with forward slashes
 * @param title what it is
 */
public record HandoffFile(String path, String title, String text) {
    public byte[] bytes() {
        return text.getBytes(StandardCharsets.UTF_8);
    }
}
