package polymetron.server.problem;

import jakarta.annotation.Nullable;
import java.util.Locale;
import java.util.UUID;
import org.apache.tomcat.util.http.InvalidParameterException;
import org.jooq.exception.DataAccessException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.dao.DataAccessResourceFailureException;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.transaction.TransactionException;
import org.springframework.web.ErrorResponse;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.ServletWebRequest;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.context.request.async.AsyncRequestNotUsableException;
import org.springframework.web.context.request.async.AsyncRequestTimeoutException;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import polymetron.bench.machine.BenchException;
import polymetron.edit.RejectedEdit;
import polymetron.json.DocumentException;
import polymetron.output.image.ProgramFileException;
import polymetron.server.budget.Busy;
import polymetron.server.guard.BodyTooLarge;
import polymetron.server.guard.Problems;
import tools.jackson.core.exc.StreamReadException;
import tools.jackson.databind.exc.InvalidTypeIdException;

/** Turns failures into problem documents (RFC 9457) that say where and what would be right. */
// Before Spring's own advice, which would not say what was wrong.
@Order(Ordered.HIGHEST_PRECEDENCE)
@RestControllerAdvice
public final class ProblemAdvice {
    private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);

    private static ProblemDetail problem(HttpStatus status, String title, String detail) {
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(status, detail);
        problem.setTitle(title);
        return problem;
    }

    private static ProblemDetail field(
            HttpStatus status, String title, String detail, String field) {
        ProblemDetail problem = problem(status, title, detail);
        problem.setProperty("field", field);
        return problem;
    }

    @ExceptionHandler
    ProblemDetail notThere(NotThere missing) {
        return problem(HttpStatus.NOT_FOUND, "Not there", missing.getMessage());
    }

    @ExceptionHandler
    ProblemDetail rejected(RejectedEdit rejected) {
        return field(
                HttpStatus.UNPROCESSABLE_CONTENT,
                "Edit refused",
                rejected.getMessage(),
                rejected.field());
    }

    @ExceptionHandler
    ProblemDetail document(DocumentException wrong) {
        return field(
                HttpStatus.UNPROCESSABLE_CONTENT,
                "Document refused",
                wrong.getMessage(),
                wrong.pointer());
    }

    @ExceptionHandler
    ProblemDetail elf(ProgramFileException wrong) {
        return field(
                HttpStatus.UNPROCESSABLE_CONTENT, "Program refused", wrong.getMessage(), "file");
    }

    @ExceptionHandler
    ProblemDetail bench(BenchException wrong) {
        return problem(HttpStatus.UNPROCESSABLE_CONTENT, "Not on the bench", wrong.getMessage());
    }

    @ExceptionHandler
    ProblemDetail busy(Busy busy) {
        return problem(HttpStatus.SERVICE_UNAVAILABLE, "Too much at once", busy.getMessage());
    }

    @ExceptionHandler
    ProblemDetail stale(StaleEdit stale) {
        ProblemDetail problem =
                problem(HttpStatus.CONFLICT, "Changed meanwhile", stale.getMessage());
        problem.setProperty("revision", stale.revision());
        problem.setProperty("meanwhile", stale.meanwhile());
        return problem;
    }

    @ExceptionHandler
    ProblemDetail tooLarge(BodyTooLarge wrong) {
        return problem(
                HttpStatus.CONTENT_TOO_LARGE, "Too large", Problems.tooLargeDetail(wrong.limit()));
    }

    @ExceptionHandler
    ProblemDetail argument(IllegalArgumentException wrong) {
        return problem(HttpStatus.UNPROCESSABLE_CONTENT, "Not possible", wrong.getMessage());
    }

    @ExceptionHandler
    ProblemDetail type(MethodArgumentTypeMismatchException wrong) {
        if (wrong.getRequiredType() == UUID.class && wrong.getName().equals("id")) {
            return field(
                    HttpStatus.NOT_FOUND,
                    "Not there",
                    "there is no platform %s".formatted(wrong.getValue()),
                    "id");
        }
        return field(
                HttpStatus.BAD_REQUEST,
                "Wrong value",
                "%s cannot be '%s'".formatted(wrong.getName(), wrong.getValue()),
                wrong.getName());
    }

    @ExceptionHandler
    ProblemDetail unreadable(HttpMessageNotReadableException wrong) {
        for (Throwable cause = wrong; cause != null; cause = cause.getCause()) {
            if (cause instanceof BodyTooLarge large) {
                return tooLarge(large);
            }
            if (cause instanceof InvalidTypeIdException unknown) {
                return problem(
                        HttpStatus.BAD_REQUEST,
                        "Not understood",
                        "there is no %s '%s'"
                                .formatted(
                                        unknown.getBaseType()
                                                .getRawClass()
                                                .getSimpleName()
                                                .toLowerCase(Locale.ROOT),
                                        unknown.getTypeId()));
            }
            if (cause instanceof StreamReadException unread) {
                return problem(
                        HttpStatus.BAD_REQUEST,
                        "Not understood",
                        "the body is no complete JSON: "
                                + unread.getOriginalMessage().replaceFirst(" \\(.*", ""));
            }
            if (cause instanceof IllegalArgumentException argument
                    && !(cause instanceof NumberFormatException)) {
                return problem(
                        HttpStatus.UNPROCESSABLE_CONTENT, "Not possible", argument.getMessage());
            }
        }
        String reason = String.valueOf(wrong.getMostSpecificCause().getMessage());
        if (reason.startsWith("Required request body is missing")) {
            return problem(
                    HttpStatus.BAD_REQUEST,
                    "Not understood",
                    "this request needs a body, it is empty");
        }
        return problem(
                HttpStatus.BAD_REQUEST,
                "Not understood",
                "the body is not the JSON expected here: " + reason.lines().findFirst().orElse(""));
    }

    @ExceptionHandler({
        DataAccessException.class,
        DataAccessResourceFailureException.class,
        TransactionException.class,
        org.springframework.dao.DataAccessException.class
    })
    ProblemDetail store(Exception failure, WebRequest request) {
        LOG.warn("the database cannot be used: {}", failure.getMessage());
        boolean reads =
                request instanceof ServletWebRequest servlet
                        && servlet.getHttpMethod() == HttpMethod.GET;
        return problem(
                HttpStatus.SERVICE_UNAVAILABLE,
                "Storage cannot be reached",
                reads
                        ? "what is stored cannot be read now; nothing is lost. Try again in a"
                                + " moment"
                        : "the change is not stored; everything acknowledged before is. Try again"
                                + " in a moment");
    }

    /** A stream of events has gone on long enough; the browser asks for another by itself. */
    @ExceptionHandler
    void over(AsyncRequestTimeoutException end) {
        LOG.debug("a stream of events ended: {}", end.getMessage());
    }

    @ExceptionHandler
    ProblemDetail encoding(InvalidParameterException wrong) {
        return problem(
                HttpStatus.BAD_REQUEST,
                "Not understood",
                "a parameter of the address is no text in UTF-8");
    }

    /** An unexpected failure. The reader learns that it is not their mistake; the log keeps what happened. */
    @ExceptionHandler
    @Nullable
    ProblemDetail defect(RuntimeException failure) {
        if (failure instanceof ErrorResponse known) {
            return known.getBody();
        }
        for (Throwable cause = failure; cause != null; cause = cause.getCause()) {
            if (cause instanceof AsyncRequestNotUsableException) {
                // The client has gone: no answer.
                return null;
            }
        }
        LOG.error("a request failed", failure);
        return problem(
                HttpStatus.INTERNAL_SERVER_ERROR,
                "A defect of Polymetron",
                "the request was not carried out, and nothing was changed; what happened is in the"
                        + " server's log");
    }
}
