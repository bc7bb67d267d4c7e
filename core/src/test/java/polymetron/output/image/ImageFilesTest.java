package polymetron.output.image;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.Random;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.Shipped;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.library.Vlnv;
import polymetron.outside.Tool;
import polymetron.platform.Platform;

/** Images against {@code objcopy}, {@code srec_cat} and a Verilog simulator. */
final class ImageFilesTest {
    @TempDir private Path folder;
    private ProgramImage image;

    @BeforeEach
    void writeImages() {
        Tool.write(folder, "demo.elf", Shipped.demoProgram());
        image =
                ProgramImage.of(
                        Shipped.elaborate(Shipped.demo()),
                        ElfReader.read(Shipped.demoProgram()),
                        (byte) 0);
        assertThat(image.problems()).isEmpty();
        for (ImageFile file : ImageFiles.of(image, "demo")) {
            Tool.write(folder, file.name(), file.bytes());
        }
    }

    private byte[] bytes(String name) throws IOException {
        return Files.readAllBytes(folder.resolve(name));
    }

    private void objcopy(String format, String out) {
        Tool.run(folder, "riscv64-unknown-elf-objcopy", "-O", format, "demo.elf", out);
    }

    @Test
    void binaryIsThatOfObjcopy() throws IOException {
        objcopy("binary", "wanted.bin");
        assertThat(bytes("demo_code.bin")).isEqualTo(bytes("wanted.bin"));
    }

    /** Intel HEX: the same contents for srec_cat, and as objcopy writes, which leaves an entry of 0 out. */
    @Test
    void hexHoldsTheSameBytes() throws IOException {
        objcopy("ihex", "wanted.hex");
        Tool.run(folder, "srec_cat", "demo.hex", "-intel", "-o", "from_hex.bin", "-binary");
        assertThat(bytes("from_hex.bin")).isEqualTo(bytes("demo_code.bin"));
        Tool.run(folder, "srec_cmp", "demo.hex", "-intel", "wanted.hex", "-intel");
        // Start linear address 0 (record type 05), then the end record.
        assertThat(new String(bytes("demo.hex"), StandardCharsets.US_ASCII))
                .endsWith(":0400000500000000F7\n:00000001FF\n");
    }

    @Test
    void recordsHoldTheSameBytes() throws IOException {
        objcopy("srec", "wanted.srec");
        Tool.run(folder, "srec_cmp", "demo.srec", "-motorola", "wanted.srec", "-motorola");
        assertThat(Tool.run(folder, "srec_info", "demo.srec", "-motorola"))
                .contains("Header: \"demo\"")
                .contains("Execution Start Address: 00000000");
    }

    /** CRC-32 of IEEE 802.3: check value, and srec_cat's over the same memory. */
    @Test
    void checksumsAreThoseOfTheStandard() throws IOException {
        ImageFile digits = new ImageFile("d", "", "123456789".getBytes(StandardCharsets.US_ASCII));
        assertThat(digits.crc32()).isEqualTo(0xCBF4_3926L);
        int end = bytes("demo_code.bin").length;
        Tool.run(
                folder,
                "srec_cat",
                "demo.hex",
                "-intel",
                "-crc32-little-endian",
                Integer.toString(end),
                "-crop",
                Integer.toString(end),
                Integer.toString(end + 4),
                "-offset",
                "-" + end,
                "-o",
                "crc.bin",
                "-binary");
        byte[] crc = bytes("crc.bin");
        long wanted = 0;
        for (int at = 3; at >= 0; at--) {
            wanted = wanted << 8 | crc[at] & 0xFF;
        }
        assertThat(image.memories().getFirst().crc32()).isEqualTo(wanted);
    }

    /** {@code $readmemh} (IEEE 1364-2005, 17.2.9) in a simulator, word for word and lane by lane. */
    @Test
    void memoryFilesAreReadByASimulator() throws IOException {
        Tool.write(
                folder,
                "read.v",
                """
                module read;
                  reg [31:0] words [0:4095];
                  reg [7:0] lane0 [0:4095], lane1 [0:4095], lane2 [0:4095], lane3 [0:4095];
                  integer at;
                  initial begin
                    $readmemh("demo_code.mem", words);
                    $readmemh("demo_code_lane0.mem", lane0);
                    $readmemh("demo_code_lane1.mem", lane1);
                    $readmemh("demo_code_lane2.mem", lane2);
                    $readmemh("demo_code_lane3.mem", lane3);
                    for (at = 0; at < 4096; at = at + 1) begin
                      if (words[at] !== {lane3[at], lane2[at], lane1[at], lane0[at]})
                        $display("lanes differ at %0d", at);
                      $display("%h", words[at]);
                    end
                  end
                endmodule
                """);
        Tool.run(folder, "iverilog", "-g2005", "-Wall", "-o", "read", "read.v");
        String[] lines = Tool.run(folder, "vvp", "-n", "read").split("\n");
        byte[] contents = bytes("demo_code.bin");
        assertThat(lines).hasSize(4096);
        for (int word = 0; word < lines.length; word++) {
            StringBuilder wanted = new StringBuilder();
            for (int lane = 3; lane >= 0; lane--) {
                int at = 4 * word + lane;
                wanted.append("%02x".formatted(at < contents.length ? contents[at] : 0));
            }
            assertThat(lines[word]).isEqualTo(wanted.toString());
        }
    }

    /** Chunks anywhere in 32 bits, odd lengths, across 64 KiB boundaries. */
    @Test
    void sparseImagesSurviveBothFormats() throws IOException {
        Random random = new Random(1988);
        List<Chunk> chunks = new java.util.ArrayList<>();
        long address = 3;
        while (address < 0xFFF0_0000L) {
            byte[] bytes = new byte[1 + random.nextInt(300)];
            random.nextBytes(bytes);
            chunks.add(new Chunk(address, bytes));
            address += bytes.length + random.nextLong(0x1000_0000L);
        }
        chunks.add(new Chunk(0xFFFF_FFF1L, new byte[15]));
        chunks.add(3, new Chunk(chunks.get(2).end() + 1, new byte[0x1_0010]));
        chunks.subList(4, chunks.size()).removeIf(each -> each.address() < chunks.get(3).end());
        Tool.write(folder, "sparse.hex", IntelHex.write(chunks, 0x1234_5678));
        Tool.write(folder, "sparse.srec", SRecord.write("sparse", chunks, 0x1234_5678));
        Tool.run(folder, "srec_cmp", "sparse.hex", "-intel", "sparse.srec", "-motorola");
        for (Chunk chunk : chunks) {
            String start = Long.toString(chunk.address());
            String end = Long.toString(chunk.end());
            if (chunk.end() <= 0xFFFF_FFFFL) {
                Tool.run(
                        folder,
                        "srec_cat",
                        "sparse.hex",
                        "-intel",
                        "-crop",
                        start,
                        end,
                        "-offset",
                        "-" + start,
                        "-o",
                        "chunk.bin",
                        "-binary");
                assertThat(bytes("chunk.bin")).isEqualTo(chunk.bytes());
            }
        }
    }

    @Test
    void sameProgramGivesTheSameBytes() {
        List<ImageFile> once = ImageFiles.of(image, "demo");
        List<ImageFile> again = ImageFiles.of(image, "demo");
        for (int at = 0; at < once.size(); at++) {
            assertThat(again.get(at).bytes()).isEqualTo(once.get(at).bytes());
        }
    }

    @Test
    void fillsWhatIsNotLoaded() {
        ProgramImage filled =
                ProgramImage.of(
                        Shipped.elaborate(Shipped.demo()),
                        ElfReader.read(Shipped.demoProgram()),
                        (byte) 0xFF);
        byte[] whole = filled.memories().getFirst().whole((byte) 0xFF);
        assertThat(whole).hasSize(16_384).endsWith(0xFF, 0xFF);
    }

    @Test
    void saysWhatDoesNotFitAndByHowMuch() {
        Editor editor = new Editor(Shipped.LIBRARY);
        Platform small =
                editor.apply(Shipped.demo(), new Edit.SetParameter("code", "SIZE", "2048"));
        ProgramFile program = ElfReader.read(Shipped.demoProgram());
        long text = program.sections().getFirst().sizeBytes();
        ProgramImage tooBig = ProgramImage.of(Shipped.elaborate(small), program, (byte) 0);
        assertThat(tooBig.fits()).isFalse();
        assertThat(tooBig.sections().getFirst().overflowBytes()).isEqualTo(text - 2048);
        assertThat(tooBig.problems().getFirst())
                .contains(".text")
                .contains("passes the end of code by %d B".formatted(text - 2048));
        assertThat(ImageFiles.of(tooBig, "demo")).isEmpty();

        Platform elsewhere =
                editor.apply(
                        Shipped.demo(),
                        new Edit.Several(
                                null,
                                List.of(
                                        new Edit.Attach(
                                                "code",
                                                "port",
                                                "system",
                                                polymetron.address.Address.parse("0x2000_0000"),
                                                null),
                                        new Edit.SetParameter(
                                                "cpu", "RESET_VECTOR", "0x2000_0000"))));
        assertThat(ProgramImage.of(Shipped.elaborate(elsewhere), program, (byte) 0).problems())
                .anyMatch(problem -> problem.contains("where there is no memory"))
                .anyMatch(problem -> problem.contains("cpu starts at 0x2000_0000"));
    }

    /** A program of a few bytes at some addresses. */
    private static ProgramFile bytesAt(int step, long... addresses) {
        List<ProgramFile.Segment> segments = new java.util.ArrayList<>();
        for (long address : addresses) {
            byte[] bytes = new byte[step];
            new Random(address).nextBytes(bytes);
            segments.add(
                    new ProgramFile.Segment(address, address, bytes, bytes.length, true, false));
        }
        return new ProgramFile(0, 0, segments, List.of());
    }

    private static Platform with(String name, String type, long base, Map<String, String> values) {
        Editor editor = new Editor(Shipped.LIBRARY);
        Platform platform =
                editor.apply(
                        Shipped.demo(),
                        new Edit.AddBlock(name, Vlnv.parse("polymetron:memory:" + type), values));
        return editor.apply(
                platform,
                new Edit.Attach(
                        name, "port", "system", new polymetron.address.Address(base), null));
    }

    /** A word of the files is a word of the memory: a simulator reads 64 bits at a time, and eight lanes. */
    @Test
    void aWideMemoryHasWideWords() throws IOException {
        Platform wide =
                with(
                        "wide",
                        "block-memory:1.1",
                        0x2000_0000,
                        Map.of("WIDTH", "64", "SIZE", "1024"));
        ProgramImage program =
                ProgramImage.of(Shipped.elaborate(wide), bytesAt(100, 0x2000_0008L), (byte) 0xA5);
        assertThat(program.problems()).isEmpty();
        ImageFiles.of(program, "w").forEach(file -> Tool.write(folder, file.name(), file.bytes()));
        Tool.write(
                folder,
                "read.v",
                """
                module read;
                  reg [63:0] words [0:127];
                  reg [7:0] low [0:127];
                  reg [7:0] high [0:127];
                  integer at;
                  initial begin
                    $readmemh("w_wide.mem", words);
                    $readmemh("w_wide_lane0.mem", low);
                    $readmemh("w_wide_lane7.mem", high);
                    for (at = 0; at < 128; at = at + 1)
                      if (words[at][7:0] === low[at] && words[at][63:56] === high[at])
                        $display("%h", words[at]);
                  end
                endmodule
                """);
        Tool.run(folder, "iverilog", "-g2005", "-Wall", "-o", "read", "read.v");
        StringBuilder expected = new StringBuilder();
        byte[] whole = program.memories().getFirst().whole((byte) 0xA5);
        for (int word = 0; word < 128; word++) {
            for (int lane = 7; lane >= 0; lane--) {
                expected.append("%02x".formatted(whole[8 * word + lane] & 0xFF));
            }
            expected.append('\n');
        }
        assertThat(Tool.run(folder, "vvp", "-n", "read")).isEqualTo(expected.toString());
        assertThat(folder.resolve("w_wide_lane8.mem")).doesNotExist();
    }

    /** Memory chips have no $readmemh; what is far apart is no binary of many megabytes of nothing. */
    @Test
    void externalMemoryIsAsLongAsItsContents() {
        Platform large =
                with(
                        "records",
                        "external-memory-controller:1.0",
                        0x4000_0000,
                        Map.of("SIZE", String.valueOf(1 << 30), "ROWS", "14"));
        ProgramImage near =
                ProgramImage.of(
                        Shipped.elaborate(large),
                        bytesAt(16, 0x5000_0000L, 0x5000_0020L),
                        (byte) 0);
        assertThat(ImageFiles.of(near, "x"))
                .extracting(ImageFile::name, file -> file.bytes().length)
                .contains(org.assertj.core.groups.Tuple.tuple("x_records.bin", 0x30))
                .hasSize(3);
        ProgramImage far =
                ProgramImage.of(
                        Shipped.elaborate(large),
                        bytesAt(16, 0x4000_0000L, 0x7FFF_FFF0L),
                        (byte) 0);
        assertThat(ImageFiles.of(far, "x"))
                .extracting(ImageFile::name)
                .containsExactly("x.hex", "x.srec");
    }

    /** Through two ports the same bytes have two addresses. */
    @Test
    void segmentsOverEachOtherInOneMemoryAreRefused() {
        Platform twice =
                with(
                        "shared",
                        "block-memory:1.1",
                        0x2000_0000,
                        Map.of("PORTS", "2", "SIZE", "1024"));
        twice =
                new Editor(Shipped.LIBRARY)
                        .apply(
                                twice,
                                new Edit.Attach(
                                        "shared",
                                        "second",
                                        "system",
                                        new polymetron.address.Address(0x3000_0000),
                                        null));
        assertThat(
                        ProgramImage.of(
                                        Shipped.elaborate(twice),
                                        bytesAt(16, 0x2000_0010L, 0x3000_0018L),
                                        (byte) 0)
                                .problems())
                .containsExactly(
                        "two segments are loaded over each other in shared, through shared.port and"
                                + " shared.second");
    }
}
