package polymetron.bench.foreign;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Path;
import java.util.List;
import polymetron.bench.machine.BenchException;

/** A running block: it does what it is asked to, and says what its outputs are then. One that does not answer is ended. */
final class StepperProcess implements AutoCloseable {
    private static final long PATIENCE_NANOS = 5_000_000_000L;
    private static final int ERROR = 1;
    private static final int SILENT = 2;
    private static final int ENDED = 4;
    private static final int HEAD = 12;

    /**
     * @param cycles that have passed
     * @param value what was read
     * @param outputs in the order of the harness
     */
    record Answer(
            int cycles,
            int value,
            boolean isError,
            boolean isSilent,
            boolean hasEnded,
            long[] outputs) {}

    private final String name;
    private final Process process;
    private final OutputStream to;
    private final InputStream from;
    private final ByteBuffer answer;

    /** When the answer that is waited for is too late; 0 while none is. */
    private volatile long deadline;

    StepperProcess(Sandbox sandbox, Path folder, String name, int outputs) {
        this.name = name;
        try {
            this.process =
                    new ProcessBuilder(
                                    sandbox.command(
                                            folder,
                                            false,
                                            Sandbox.Limits.RUN,
                                            List.of("/work/stepper")))
                            .redirectError(ProcessBuilder.Redirect.DISCARD)
                            .start();
        } catch (IOException failure) {
            throw new BenchException("%s: its model cannot be started".formatted(name));
        }
        this.to = process.getOutputStream();
        this.from = process.getInputStream();
        this.answer =
                ByteBuffer.allocate(HEAD + outputs * Long.BYTES).order(ByteOrder.LITTLE_ENDIAN);
        Thread.ofVirtual().name("patience").start(this::watch);
    }

    private void watch() {
        while (process.isAlive()) {
            long late = deadline;
            if (late != 0 && System.nanoTime() - late > 0) {
                close();
            }
            try {
                Thread.sleep(200);
            } catch (InterruptedException end) {
                return;
            }
        }
    }

    /** Sends words and waits for the answer. */
    Answer ask(int... words) {
        ByteBuffer request =
                ByteBuffer.allocate(words.length * Integer.BYTES).order(ByteOrder.LITTLE_ENDIAN);
        for (int word : words) {
            request.putInt(word);
        }
        deadline = System.nanoTime() + PATIENCE_NANOS;
        try {
            to.write(request.array());
            to.flush();
            byte[] bytes = answer.array();
            if (from.readNBytes(bytes, 0, bytes.length) < bytes.length) {
                throw gone();
            }
        } catch (IOException broken) {
            throw gone();
        } finally {
            deadline = 0;
        }
        answer.rewind();
        int cycles = answer.getInt();
        int value = answer.getInt();
        int flags = answer.getInt();
        long[] outputs = new long[(answer.capacity() - HEAD) / Long.BYTES];
        for (int at = 0; at < outputs.length; at++) {
            outputs[at] = answer.getLong();
        }
        return new Answer(
                cycles,
                value,
                (flags & ERROR) != 0,
                (flags & SILENT) != 0,
                (flags & ENDED) != 0,
                outputs);
    }

    private BenchException gone() {
        return new BenchException(
                "%s: its Verilog does not come to an end within a cycle, or needs more than it may; the bench cannot go on"
                        .formatted(name));
    }

    @Override
    public void close() {
        process.descendants().forEach(ProcessHandle::destroyForcibly);
        process.destroyForcibly();
    }
}
