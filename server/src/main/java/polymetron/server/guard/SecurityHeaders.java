package polymetron.server.guard;

import jakarta.servlet.http.HttpServletResponse;

/** What every answer says about how a browser may use it, refusals too. */
final class SecurityHeaders {
    private static final String POLICY =
            "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; font-src"
                    + " 'self' data:; frame-ancestors 'none'; base-uri 'none'; form-action 'self';"
                    + " object-src 'none'";

    private SecurityHeaders() {}

    static void on(HttpServletResponse response) {
        response.setHeader("Content-Security-Policy", POLICY);
        response.setHeader("X-Content-Type-Options", "nosniff");
        response.setHeader("Referrer-Policy", "no-referrer");
        response.setHeader("Cross-Origin-Resource-Policy", "same-origin");
    }
}
