package polymetron.server.bench;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.UUID;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import polymetron.bench.machine.BenchException;

@Timeout(30)
final class CancellableWorkTest {
    private final CancellableWork work = new CancellableWork();
    private final UUID number = UUID.randomUUID();

    @Test
    void endsWhatIsCancelledAndLeavesItsThreadAsItWas() throws Exception {
        CountDownLatch begun = new CountDownLatch(1);
        try (ExecutorService thread = Executors.newSingleThreadExecutor()) {
            Future<String> ended =
                    thread.submit(
                            () -> {
                                try {
                                    return work.run(
                                            number,
                                            () -> {
                                                begun.countDown();
                                                Thread.sleep(60_000);
                                                return "done";
                                            });
                                } catch (BenchException cancelled) {
                                    return cancelled.getMessage();
                                }
                            });
            begun.await();
            assertThatThrownBy(() -> work.run(number, () -> "")).hasMessageContaining("under way");
            work.cancel(number);
            assertThat(ended.get()).isEqualTo("it was cancelled");
            // The next request on the same thread is not touched.
            assertThat(thread.submit(() -> work.run(number, () -> Thread.interrupted())).get())
                    .isFalse();
        }
    }

    @Test
    void whatHasEndedIsNotCancelled() {
        assertThat(work.<String>run(number, () -> "done")).isEqualTo("done");
        work.cancel(number);
        assertThat(Thread.interrupted()).isFalse();
        assertThat(work.<String>run(null, () -> "again")).isEqualTo("again");
    }

    /** One that is cancelled as it ends does not hand its interruption to what comes next. */
    @Test
    void anInterruptionDoesNotOutliveIt() {
        assertThat(
                        work.<String>run(
                                number,
                                () -> {
                                    work.cancel(number);
                                    return "done all the same";
                                }))
                .isEqualTo("done all the same");
        assertThat(Thread.currentThread().isInterrupted()).isFalse();
    }
}
