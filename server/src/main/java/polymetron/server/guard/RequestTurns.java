package polymetron.server.guard;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * How many requests are worked on at a time. The others wait here, where they cost nothing, instead of for one of the
 * few connections to the database, where waiting looks like a database that is away. Streams of events are not counted, as
 * they hardly work, nor uploads, which have a budget of their own.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 1)
final class RequestTurns extends OncePerRequestFilter {
    private static final int AT_A_TIME = 24;
    private static final int TURN_SECONDS = 30;

    private final Semaphore turns = new Semaphore(AT_A_TIME, true);

    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        String path = request.getRequestURI();
        return !path.startsWith("/api/")
                || path.equals("/api/events")
                || BodyLimit.of(path) > BodyLimit.SMALL;
    }

    @Override
    protected void doFilterInternal(
            HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        boolean mine;
        try {
            mine = turns.tryAcquire(TURN_SECONDS, TimeUnit.SECONDS);
        } catch (InterruptedException end) {
            Thread.currentThread().interrupt();
            mine = false;
        }
        if (!mine) {
            Problems.write(
                    response,
                    503,
                    "Too much at once",
                    "the server is busy with other requests; nothing was changed, try again in a"
                            + " moment");
            return;
        }
        try {
            chain.doFilter(request, response);
        } finally {
            turns.release();
        }
    }
}
