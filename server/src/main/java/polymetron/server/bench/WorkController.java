package polymetron.server.bench;

import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Cancels what takes long. */
@RestController
final class WorkController {
    private final CancellableWork work;

    WorkController(CancellableWork work) {
        this.work = work;
    }

    /** Ends the request that has this number in {@code work}; it answers that it was cancelled. */
    @DeleteMapping("/api/work/{number}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void cancel(@PathVariable UUID number) {
        work.cancel(number);
    }
}
