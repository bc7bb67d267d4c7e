package polymetron.bench.machine;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import polymetron.Shipped;
import polymetron.bench.block.BankModel;
import polymetron.bench.check.MemoryNotice;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ProgramImage;
import polymetron.platform.PlatformDocument;
import polymetron.software.SoftwareView;

/** Planted mistakes are noticed where they are, and shipped programs have none. */
final class MemoryCheckTest {
    private static final ElaboratedPlatform PLATFORM = ExercisePlatform.buses();

    private static final int RECEIVE_STATUS = 68;

    @TempDir private Path folder;

    private List<MemoryNotice> notices(String body) {
        return notices(PLATFORM, body, "end.");
    }

    private List<MemoryNotice> notices(ElaboratedPlatform platform, String body, String says) {
        ProgramImage image =
                BuiltProgram.of(
                        platform,
                        folder,
                        """
                        #include "drivers/dma.h"
                        #include "drivers/uart.h"
                        uint32_t from[8], to[8];
                        void wait(void)
                        {
                            while (!dma_is_received(MOVER_BASE)) {
                            }
                        }
                        %s
                        """
                                .formatted(body));
        Machine machine = new Machine(platform);
        machine.checkMemory();
        machine.load(image);
        assertThat(BuiltProgram.saysUntil(machine, "end.", 0.01)).endsWith(says);
        List<MemoryNotice> notices = machine.notices();
        // The same after a reset.
        machine.reset();
        BuiltProgram.saysUntil(machine, "end.", 0.01);
        assertThat(machine.notices()).isEqualTo(notices);
        return notices;
    }

    private static String main(String body) {
        return """
        int main(void)
        {
            %s
            for (const char *text = "end."; *text; text++) {
                uart_send(PLATFORM_CONSOLE_BASE, *text);
            }
            for (;;) {
            }
        }
        """
                .formatted(body);
    }

    @Test
    void aRightTransferIsNothingToNotice() {
        assertThat(
                        notices(
                                main(
                                        """
                                        for (int at = 0; at < 8; at++) from[at] = at;
                                        dma_receive(MOVER_BASE, (uintptr_t)to, 32u, false);
                                        dma_send(MOVER_BASE, (uintptr_t)from, 32u, false);
                                        wait();
                                        """)))
                .isEmpty();
    }

    @Test
    void readsWhatWasNeverWritten() {
        List<MemoryNotice> notices =
                notices(
                        "__attribute__((noinline)) uint32_t careless(void) { return *(volatile"
                                + " uint32_t *)0x7000u; }\n"
                                + main("if (careless() + careless() == 5u) from[0] = 1;"));
        assertThat(notices).hasSize(1);
        assertThat(notices.getFirst().text())
                .matches(
                        "cpu in careless(\\+0x[0-9a-f]+)? reads 0x0000_7000, which was never"
                                + " written, 2 times");
    }

    @Test
    void blocksWriteOverInstructionsAndTheStack() {
        String transfer =
                """
                for (int at = 0; at < 8; at++) from[at] = 0x00008067u;
                dma_receive(MOVER_BASE, TARGET, 32u, false);
                dma_send(MOVER_BASE, (uintptr_t)from, 32u, false);
                wait();
                """;
        String victim =
                "__attribute__((noinline, aligned(64))) void victim(void) { __asm__ volatile(\"nop;"
                        + " nop; nop; nop; nop; nop; nop; nop\"); }\n";
        assertThat(
                        notices(
                                victim
                                        + main(
                                                "victim(); "
                                                        + transfer.replace(
                                                                "TARGET", "(uintptr_t)victim"))))
                .anySatisfy(
                        each ->
                                assertThat(each.text())
                                        .startsWith("mover writes 0x")
                                        .endsWith("where instructions are, 8 times"));
        assertThat(
                        notices(
                                main(
                                        "volatile uint32_t local[8]; local[0] = 1; "
                                                + transfer.replace("TARGET", "(uintptr_t)local"))))
                .anySatisfy(
                        each -> assertThat(each.kind()).isEqualTo(MemoryNotice.Kind.OVER_STACK));
    }

    @Test
    void aTransferWithoutAFence() {
        List<MemoryNotice> notices =
                notices(
                        "__attribute__((noinline)) void fill(void) { for (int at = 0; at < 8; at++)"
                                + " ((volatile uint32_t *)from)[at] = at; }\n"
                                + main(
                                        """
                                        dma_receive(MOVER_BASE, (uintptr_t)to, 32u, false);
                                        fill();
                                        UNORDERED
                                        wait();
                                        """
                                                .replace("UNORDERED", UNORDERED)));
        assertThat(notices)
                .anySatisfy(
                        each ->
                                assertThat(each.text())
                                        .matches(
                                                "mover reads 0x[0-9A-F_]{9}, which"
                                                    + " fill\\+0x[0-9a-f]+ stored without a FENCE"
                                                    + " behind it, [0-9] times"));
    }

    /** With a cache, what a DMA has written is seen only after a FENCE; the driver has one. */
    @Test
    void aLoadFromALineThatWasChangedSince() {
        ElaboratedPlatform cached = ExercisePlatform.cached();
        String transfer =
                """
                for (int at = 0; at < 8; at++) from[at] = (uint32_t)at + 7u;
                dma_receive(MOVER_BASE, (uintptr_t)to, 32u, false);
                dma_send(MOVER_BASE, (uintptr_t)from, 32u, false);
                if (*(volatile uint32_t *)&to[3] == 7u) from[0] = 1;
                WAIT
                print_hex(*(volatile uint32_t *)&to[3]);
                """;
        assertThat(notices(cached, main(transfer.replace("WAIT", "wait();")), "0000000aend."))
                .isEmpty();
        List<MemoryNotice> notices =
                notices(
                        cached,
                        main(
                                transfer.replace(
                                        "WAIT",
                                        "while ((*dma_register(MOVER_BASE, 68u) & 1u) == 0u) {"
                                                + " }")),
                        "00000000end.");
        assertThat(notices)
                .singleElement()
                .satisfies(
                        each ->
                                assertThat(each.text())
                                        .matches(
                                                "cpu in main\\+0x[0-9a-f]+ reads 0x[0-9A-F_]{9}"
                                                        + " from its cache, but memory was changed"
                                                        + " since; .*"));
    }

    /** A person may clear what the program has not seen, also before it has begun. */
    @Test
    void registersAreWrittenByHand() {
        ProgramImage image = BuiltProgram.of(PLATFORM, folder, main(""));
        Machine machine = new Machine(PLATFORM);
        machine.checkMemory();
        machine.load(image);
        BankModel mover = (BankModel) machine.model("mover").orElseThrow();
        mover.raise(RECEIVE_STATUS, 1);
        mover.write(RECEIVE_STATUS, 1, -1);
        BuiltProgram.saysUntil(machine, "end.", 0.01);
        mover.raise(RECEIVE_STATUS, 1);
        mover.write(RECEIVE_STATUS, 1, -1);
        assertThat(mover.peek(RECEIVE_STATUS) & 1).isZero();
        assertThat(machine.notices()).isEmpty();
    }

    @Test
    void anEventThatIsClearedUnread() {
        String transfer =
                """
                for (int at = 0; at < 8; at++) from[at] = at;
                dma_receive(MOVER_BASE, (uintptr_t)to, 32u, false);
                dma_send(MOVER_BASE, (uintptr_t)from, 32u, false);
                for (volatile int at = 0; at < 200; at++) {
                }
                LOOK
                *dma_register(MOVER_BASE, 68u) = 1u;
                """;
        assertThat(
                        notices(main(transfer.replace("LOOK", ""))).stream()
                                .map(MemoryNotice::text)
                                .toList())
                .singleElement()
                .asString()
                .matches(
                        "cpu in main\\+0x[0-9a-f]+ clears mover RECEIVE_STATUS.DONE, which was set"
                                + " and not read since: the event is lost");
        assertThat(notices(main(transfer.replace("LOOK", "wait();")))).isEmpty();
    }

    /** The driver's own words, without what orders memory. */
    private static final String UNORDERED =
            """
            *dma_register(MOVER_BASE, 0u) = 1u;
            *dma_register(MOVER_BASE, 8u) = (uint32_t)(uintptr_t)from;
            *dma_register(MOVER_BASE, 16u) = 32u;
            """;

    @ParameterizedTest
    @CsvSource({"canal-lock, 0.05", "highland-station, 0.3", "ridge-station, 0.3"})
    void shippedProgramsHaveNone(String name, double seconds) {
        ElaboratedPlatform platform =
                Shipped.elaborate(
                        PlatformDocument.read(
                                name + ".json",
                                new String(
                                        Shipped.file("demo/" + name + ".json"),
                                        StandardCharsets.UTF_8)));
        Machine machine = new Machine(platform);
        machine.checkMemory();
        machine.load(
                ProgramImage.of(
                        SoftwareView.of(platform),
                        ElfReader.read(Shipped.file("demo/" + name + ".elf")),
                        (byte) 0));
        assertThat(BuiltProgram.says(machine, seconds)).contains("platform");
        assertThat(machine.notices()).isEmpty();
    }
}
