package polymetron.server.boot;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import polymetron.Shipped;
import polymetron.output.HandoffFile;
import polymetron.output.handoff.Delivery;
import polymetron.output.image.ElfReader;
import polymetron.output.image.ImageFile;
import polymetron.output.image.ImageFiles;
import polymetron.output.image.ProgramImage;
import polymetron.platform.Names;
import polymetron.server.OneServer;
import polymetron.server.RunningServer;
import polymetron.server.RunningServer.Answer;
import tools.jackson.databind.JsonNode;

@ExtendWith(OneServer.class)
final class ProgramApiTest {
    private final RunningServer server;
    private final String platform;

    ProgramApiTest(RunningServer server) {
        this.server = server;
        this.platform =
                "/api/platforms/"
                        + server.upload(
                                        "/api/platforms/import?name=demo",
                                        Shipped.file("demo/ridge-station.json"))
                                .json()
                                .path("id")
                                .asString();
    }

    private Answer upload(String name, byte[] program) {
        return server.upload(
                platform + "/programs?name=" + URLEncoder.encode(name, StandardCharsets.UTF_8),
                program);
    }

    /** The browser's downloads are the core's bytes, which the command line writes too. */
    @Test
    void downloadsAreTheCoresBytes() throws IOException {
        String program = upload("demo.elf", Shipped.demoProgram()).json().path("id").asString();
        ProgramImage image =
                ProgramImage.of(
                        Shipped.elaborate(Shipped.demo()),
                        ElfReader.read(Shipped.demoProgram()),
                        (byte) 0xFF);
        JsonNode shown = server.get(platform + "/programs/" + program + "/image?fill=255").json();
        assertThat(shown.path("problems").valueStream()).isEmpty();
        for (ImageFile file : ImageFiles.of(image, Names.fromTitle("Ridge Station"))) {
            assertThat(
                            server.get(
                                            platform
                                                    + "/programs/"
                                                    + program
                                                    + "/file?fill=255&name="
                                                    + file.name())
                                    .bytes())
                    .as(file.name())
                    .isEqualTo(file.bytes());
        }
        Delivery handoff = Delivery.of(Shipped.elaborate(Shipped.demo()));
        Answer zip = server.get(platform + "/handoff/zip");
        assertThat(zip.bytes()).isEqualTo(handoff.zip());
        try (ZipInputStream entries = new ZipInputStream(new ByteArrayInputStream(zip.bytes()))) {
            for (HandoffFile file : handoff.files()) {
                ZipEntry entry = entries.getNextEntry();
                assertThat(entry.getName()).doesNotContain("..").endsWith(file.path());
                assertThat(entries.readAllBytes()).isEqualTo(file.bytes());
            }
        }
        for (HandoffFile file : handoff.handoff().files()) {
            assertThat(server.get(platform + "/handoff/file?path=" + file.path()).bytes())
                    .isEqualTo(file.bytes());
        }
    }

    @Test
    void foreignAndTruncatedFilesAreRefusedAndNotKept() {
        byte[] demo = Shipped.demoProgram();
        byte[] foreign = demo.clone();
        foreign[18] = 40; // e_machine: 40 is ARM (ELF specification, gABI registry).
        assertThat(upload("half.elf", Arrays.copyOf(demo, 200)).status()).isEqualTo(422);
        assertThat(upload("foreign.elf", foreign).json().path("detail").asString())
                .contains("RISC-V");
        assertThat(upload("note.txt", "hello".getBytes(StandardCharsets.UTF_8)).status())
                .isEqualTo(422);
        assertThat(server.get(platform + "/programs").json().size()).isZero();
    }

    @Test
    void namesOfFilesDoNotBecomePaths() {
        upload("../../etc/pass\nwd", Shipped.demoProgram());
        assertThat(server.get(platform + "/programs").json().path(0).path("name").asString())
                .isEqualTo("pass wd");
        assertThat(server.get(platform + "/handoff/file?path=../../etc/passwd").status())
                .isEqualTo(404);
        assertThat(upload("dir/", Shipped.demoProgram()).status()).isEqualTo(422);
    }

    @Test
    void aProgramUploadedTwiceIsKeptOnce() {
        upload("one.elf", Shipped.demoProgram());
        upload("two.elf", Shipped.demoProgram());
        JsonNode programs = server.get(platform + "/programs").json();
        assertThat(programs.size()).isEqualTo(1);
        assertThat(programs.path(0).path("name").asString()).isEqualTo("two.elf");
        assertThat(
                        server.get(
                                        platform
                                                + "/programs/"
                                                + programs.path(0).path("id").asString()
                                                + "/image?fill=256")
                                .json()
                                .path("field")
                                .asString())
                .isEqualTo("fill");
    }
}
