package polymetron.output.image;

import java.util.OptionalLong;

/**
 * Reads a program file, whatever it is: ELF, Intel HEX or S-record by how it begins, or plain bytes. The file is not
 * trusted.
 */
public final class ProgramReader {
    private ProgramReader() {}

    /**
     * @param at address of the first byte of a file of plain bytes; empty when it is not known
     * @throws ProgramFileException when the file is no program; the message says why, and where
     */
    public static ProgramFile read(byte[] bytes, OptionalLong at) {
        if (bytes.length > ElfReader.LARGEST) {
            throw new ProgramFileException(
                    "the file has %s bytes; at most %s are read"
                            .formatted(bytes.length, ElfReader.LARGEST));
        }
        if (bytes.length >= 4
                && bytes[0] == 0x7F
                && bytes[1] == 'E'
                && bytes[2] == 'L'
                && bytes[3] == 'F') {
            return ElfReader.read(bytes);
        }
        if (RecordLines.beginsWith(bytes, ':')) {
            return IntelHexReader.read(bytes);
        }
        if (RecordLines.beginsWith(bytes, 'S')) {
            return SRecordReader.read(bytes);
        }
        if (at.isEmpty()) {
            throw new ProgramFileException(
                    "the file begins neither as an ELF file (7F 45 4C 46) nor as Intel HEX (:) or"
                            + " an S-record (S), and plain bytes do not say at which address they"
                            + " begin");
        }
        if (bytes.length == 0) {
            throw new ProgramFileException("the file is empty");
        }
        RecordedBytes recorded = new RecordedBytes();
        recorded.add(at.getAsLong(), bytes, 0);
        return recorded.program(OptionalLong.empty());
    }
}
