package polymetron.server.account;

import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.UUID;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.stereotype.Component;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import polymetron.server.store.Author;
import polymetron.server.store.CurrentAuthor;
import polymetron.text.Escape;

/**
 * The author whom a request names in its header {@code Polymetron-Author}: the browser's own number, and after a blank the
 * percent-encoded name. Whatever is not of that form is no author.
 */
@Component
final class RequestAuthor implements CurrentAuthor {
    static final String HEADER = "Polymetron-Author";
    private static final int LONGEST_NAME = 80;
    private static final Pattern FORM =
            Pattern.compile("([0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12})(?: ([!-~]{1,1000}))?");

    @Override
    public Author get() {
        return RequestContextHolder.getRequestAttributes()
                        instanceof ServletRequestAttributes attributes
                ? parse(attributes.getRequest().getHeader(HEADER))
                : Author.UNKNOWN;
    }

    static Author parse(String header) {
        Matcher form = FORM.matcher(header == null ? "" : header);
        if (!form.matches()) {
            return Author.UNKNOWN;
        }
        return new Author(UUID.fromString(form.group(1)), name(form.group(2)));
    }

    private static String name(String encoded) {
        if (encoded == null) {
            return null;
        }
        try {
            String name = URLDecoder.decode(encoded, StandardCharsets.UTF_8).strip();
            boolean isPlain =
                    !name.isEmpty()
                            && name.length() <= LONGEST_NAME
                            && name.codePoints().allMatch(Escape::isShown);
            return isPlain ? name : null;
        } catch (IllegalArgumentException wrong) {
            return null;
        }
    }
}
