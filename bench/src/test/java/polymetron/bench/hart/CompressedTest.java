package polymetron.bench.hart;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import polymetron.outside.Tool;

/**
 * Every compressed instruction against the GNU binutils: disassembled, and assembled again without the C extension, it has to be
 * the instruction that the hart and the hardware expand it to.
 */
final class CompressedTest {
    /** A line of objdump: address, half, mnemonic, operands. */
    private static final Pattern LINE =
            Pattern.compile("^\\s*([0-9a-f]+):\\t([0-9a-f]{4}) +\\t(\\S+)\\t?(.*)$");

    /** Floating point, what other widths have, and what is reserved on RV32. */
    private static final Pattern OTHER =
            Pattern.compile("\\.2byte|unimp|f[ls][wd]|c\\.s\\w+64|c\\.nop|c\\.slli|c\\.lui");

    @TempDir private Path folder;

    @Test
    void expandsToWhatTheAssemblerMakesOfIt() throws IOException {
        List<Integer> halves =
                IntStream.range(0, 1 << 16).filter(each -> (each & 3) != 3).boxed().toList();
        ByteBuffer all = ByteBuffer.allocate(2 * halves.size()).order(ByteOrder.LITTLE_ENDIAN);
        halves.forEach(each -> all.putShort(each.shortValue()));
        Tool.write(folder, "all.bin", all.array());
        String listing =
                Tool.run(
                        folder,
                        "riscv64-unknown-elf-objdump -D -z -m riscv:rv32 -M numeric -b binary all.bin"
                                .split(" "));
        List<Integer> tried = new ArrayList<>();
        StringBuilder source = new StringBuilder(".option norvc\n");
        for (String line : listing.lines().toList()) {
            Matcher found = LINE.matcher(line);
            if (found.matches() && !OTHER.matcher(found.group(3)).matches()) {
                if (found.group(4).matches(".*,0x[23]\\w$")
                        && found.group(3).matches("s[lr][la]")) {
                    // Reserved: a shift by more than a register has.
                    int half = Integer.parseInt(found.group(2), 16);
                    assertThat(Compressed.expand(half)).as(line).isZero();
                    continue;
                }
                tried.add(Integer.parseInt(found.group(2), 16));
                source.append(again(found)).append('\n');
            }
        }
        assertThat(tried).hasSizeGreaterThan(25_000);
        Tool.write(folder, "again.s", source.toString());
        Tool.run(
                folder,
                "riscv64-unknown-elf-as -march=rv32imc -misa-spec=2.2 -o again.o again.s"
                        .split(" "));
        Tool.run(
                folder,
                "riscv64-unknown-elf-objcopy -O binary -j .text again.o again.bin".split(" "));
        ByteBuffer words =
                ByteBuffer.wrap(Files.readAllBytes(folder.resolve("again.bin")))
                        .order(ByteOrder.LITTLE_ENDIAN);
        List<String> wrong = new ArrayList<>();
        for (int half : tried) {
            int word = words.getInt();
            // C.ADDI16SP by nothing is reserved (16.5), which the disassembler does not mind.
            boolean isReserved = half == 0x6101;
            if (Compressed.expand(half) != (isReserved ? 0 : word)) {
                wrong.add("%04x: %08x, not %08x".formatted(half, word, Compressed.expand(half)));
            }
        }
        assertThat(wrong).isEmpty();
        assertThat(words.hasRemaining()).isFalse();
    }

    /** The same in assembly that has no short forms; a jump goes as far as before. */
    private static String again(Matcher line) {
        String mnemonic = line.group(3).replace("c.", "");
        String operands = line.group(4).replaceFirst("\\s*[#<].*$", "").strip();
        if (mnemonic.matches("jal|j|beqz|bnez")) {
            long from = Long.parseLong(line.group(1), 16);
            int comma = operands.lastIndexOf(',');
            long to = Long.decode(operands.substring(comma + 1));
            return "%s %s. + (%s)"
                    .formatted(mnemonic, operands.substring(0, comma + 1), (int) (to - from));
        }
        return mnemonic.equals("mv") || line.group(3).equals("c.add")
                ? "add " + operands.replace(",", ",x0,")
                : mnemonic + " " + operands;
    }

    /** The hardware expands each as the hart does, what is reserved included. */
    @Test
    void theHardwareExpandsThemAsTheHartDoes() throws IOException {
        try (InputStream in =
                CompressedTest.class.getResourceAsStream(
                        "/polymetron/library/hdl/polymetron_rv32_compressed.v")) {
            Tool.write(folder, "compressed.v", in.readAllBytes());
        }
        Tool.write(
                folder,
                "all.v",
                """
                module all;
                    integer half;
                    reg [15:0] given;
                    wire [31:0] word;
                    polymetron_rv32_compressed expand (.half(given), .word(word));
                    initial begin
                        for (half = 0; half < 65536; half = half + 1) begin
                            given = half[15:0];
                            #1 if (given[1:0] != 2'd3) $display("%h %h", given, word);
                        end
                    end
                endmodule
                """);
        Tool.run(folder, "iverilog -g2005 -o all.vvp all.v compressed.v".split(" "));
        for (String line : Tool.run(folder, "vvp", "all.vvp").lines().toList()) {
            int half = Integer.parseInt(line.substring(0, 4), 16);
            assertThat(line.substring(5))
                    .as(line.substring(0, 4))
                    .isEqualTo("%08x".formatted(Compressed.expand(half)));
        }
    }
}
