package polymetron.bench.foreign;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assumptions.assumeThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.outside.Tool;

/** What a program in the sandbox can reach: nothing but the machine's programs and its own folder. */
final class SandboxTest {
    private Sandbox sandbox;

    @TempDir private Path folder;

    /** Where a machine forbids namespaces there is no sandbox, and foreign Verilog does not run. */
    @BeforeEach
    void isPossible() {
        assumeThat(Sandbox.find()).isPresent();
        sandbox = Sandbox.find().orElseThrow();
    }

    private Tool.Outcome shell(boolean writes, Sandbox.Limits limits, String script) {
        List<String> command =
                sandbox.command(folder, writes, limits, List.of("/bin/sh", "-c", script));
        return Tool.tryRun(folder, command.toArray(String[]::new));
    }

    @Test
    void seesNothingOfTheMachine() throws Exception {
        Files.writeString(folder.resolve("own.txt"), "mine");
        Path secret = Files.createTempFile("secret", ".txt");
        Tool.Outcome outcome =
                shell(
                        false,
                        // What it says goes into a file here.
                        new Sandbox.Limits(768L << 20, 60, 1 << 20, 16),
                        "cat own.txt; id -u; ls /etc /home /root /tmp /var 2>/dev/null; cat %s; echo x > own.txt; ls /proc | grep -c '^[0-9]'; grep -c : /proc/net/dev"
                                .formatted(secret));
        Files.delete(secret);
        assertThat(outcome.output()).startsWith("mine65534");
        assertThat(outcome.output())
                .contains("secret", "No such file or directory")
                .contains("Read-only file system")
                .doesNotContain("passwd");
        // Its own processes, and no network but the loopback that is down.
        assertThat(outcome.output().strip().lines().toList().getLast()).isEqualTo("1");
        assertThat(Files.readString(folder.resolve("own.txt"))).isEqualTo("mine");
    }

    @Test
    void isLimited() throws Exception {
        Files.setPosixFilePermissions(
                folder, java.nio.file.attribute.PosixFilePermissions.fromString("rwxrwxrwx"));
        Sandbox.Limits small = new Sandbox.Limits(256L << 20, 2, 1 << 20, 64);
        assertThat(shell(true, small, "head -c 3000000 /dev/zero > big").status()).isNotZero();
        assertThat(Files.size(folder.resolve("big"))).isLessThanOrEqualTo(1 << 20);
        assertThat(shell(true, small, "while :; do :; done").status()).isNotZero();
        assertThat(shell(true, small, "head -c 600000000 /dev/zero | tail").output())
                .containsAnyOf("exhausted", "allocate");
    }
}
