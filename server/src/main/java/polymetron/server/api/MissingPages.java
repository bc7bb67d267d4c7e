package polymetron.server.api;

import jakarta.servlet.http.HttpServletRequest;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.servlet.resource.NoResourceFoundException;

/** An address that leads nowhere: a person gets a page that says so, a program a problem document. */
@Order(Ordered.HIGHEST_PRECEDENCE)
@RestControllerAdvice
final class MissingPages {
    private static final ClassPathResource PAGE = new ClassPathResource("static/index.html");

    @ExceptionHandler
    ResponseEntity<Object> missing(NoResourceFoundException missing, HttpServletRequest request) {
        String accepted = request.getHeader("Accept");
        boolean isPage =
                !request.getRequestURI().startsWith("/api/")
                        && accepted != null
                        && accepted.contains(MediaType.TEXT_HTML_VALUE);
        if (isPage && PAGE.exists()) {
            return ResponseEntity.status(HttpStatus.NOT_FOUND)
                    .contentType(MediaType.TEXT_HTML)
                    .body(PAGE);
        }
        ProblemDetail problem =
                ProblemDetail.forStatusAndDetail(
                        HttpStatus.NOT_FOUND, "there is nothing at this address");
        problem.setTitle("Not there");
        return ResponseEntity.status(HttpStatus.NOT_FOUND)
                .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                .body(problem);
    }
}
