package polymetron.server.guard;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URI;
import java.util.Locale;
import java.util.Set;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import polymetron.server.budget.Busy;
import polymetron.server.budget.WorkingMemory;
import polymetron.text.Escape;

/**
 * What every request passes first. There are no accounts yet, so the server must only be used from this machine
 * and from its own pages: a Host other than loopback (a foreign name that resolves to it) and, for changes, an
 * Origin other than our own are refused. Bodies are limited, and pages get a strict content security policy.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
final class RequestGuard extends OncePerRequestFilter {
    private static final Set<String> READING = Set.of("GET", "HEAD", "OPTIONS");
    private static final Set<String> LOOPBACK = Set.of("127.0.0.1", "localhost", "[::1]");
    private static final Set<String> METHODS =
            Set.of("GET", "HEAD", "OPTIONS", "POST", "PUT", "PATCH", "DELETE");

    private final WorkingMemory memory;

    RequestGuard(WorkingMemory memory) {
        this.memory = memory;
    }

    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        SecurityHeaders.on(response);
        if (!METHODS.contains(request.getMethod())) {
            response.setHeader("Allow", String.join(", ", METHODS.stream().sorted().toList()));
            Problems.write(
                    response,
                    405,
                    "No such method",
                    "there is no method %s here".formatted(Escape.oneLine(request.getMethod())));
            return;
        }
        String host = request.getHeader("Host");
        if (host == null || !LOOPBACK.contains(withoutPort(host))) {
            Problems.write(
                    response,
                    421,
                    "Wrong host",
                    "This server answers on this machine only; open it as http://127.0.0.1:%s/"
                            .formatted(request.getLocalPort()));
            return;
        }
        if (!READING.contains(request.getMethod()) && isForeign(request, host)) {
            Problems.write(
                    response,
                    403,
                    "Foreign origin",
                    "Changes are only accepted from the application's own pages, not from %s"
                            .formatted(request.getHeader("Origin")));
            return;
        }
        if (!READING.contains(request.getMethod())) {
            long limit = BodyLimit.of(request.getRequestURI());
            if (request.getContentLengthLong() > limit) {
                Problems.tooLarge(response, limit);
                return;
            }
            if (limit <= BodyLimit.SMALL) {
                chain.doFilter(new LimitedRequest(request, limit), response);
                return;
            }
            long claimed = request.getContentLengthLong();
            try (WorkingMemory.Lease _ = memory.take(claimed < 0 ? limit : claimed)) {
                chain.doFilter(new LimitedRequest(request, limit), response);
            } catch (Busy busy) {
                response.setHeader("Connection", "close");
                Problems.write(response, 503, "Too much at once", busy.getMessage());
            }
            return;
        }
        chain.doFilter(request, response);
    }

    /** A browser names the origin of a change; a command-line client names none and cannot be misled. */
    private static boolean isForeign(HttpServletRequest request, String host) {
        String origin = request.getHeader("Origin");
        if (origin == null) {
            return "cross-site".equals(request.getHeader("Sec-Fetch-Site"));
        }
        try {
            URI uri = URI.create(origin);
            return uri.getAuthority() == null
                    || !uri.getAuthority().equalsIgnoreCase(host)
                    || !request.getScheme().equalsIgnoreCase(uri.getScheme());
        } catch (IllegalArgumentException wrong) {
            return true;
        }
    }

    private static String withoutPort(String host) {
        String lower = host.toLowerCase(Locale.ROOT);
        int colon = lower.lastIndexOf(':');
        return colon > lower.lastIndexOf(']') ? lower.substring(0, colon) : lower;
    }
}
