package polymetron.output.image;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.OptionalLong;

/** Bytes at addresses, as records bring them in any order, put together to segments. */
final class RecordedBytes {
    private record Piece(long address, byte[] bytes, int line) {
        long end() {
            return address + bytes.length;
        }
    }

    private final List<Piece> pieces = new ArrayList<>();

    void add(long address, byte[] bytes, int line) {
        if (bytes.length == 0) {
            return;
        }
        if (address + bytes.length > 1L << 32) {
            throw line == 0
                    ? new ProgramFileException(
                            "%s bytes from 0x%08X pass the end of the 32-bit address space"
                                    .formatted(bytes.length, address))
                    : RecordLines.wrong(line, "it passes the end of the 32-bit address space");
        }
        pieces.add(new Piece(address, bytes, line));
    }

    /**
     * The program that the bytes are. Nothing says which of them are instructions: those around the entry are taken for
     * them.
     *
     * @param entry address of the first instruction; empty when the file does not say
     */
    ProgramFile program(OptionalLong entry) {
        if (pieces.isEmpty()) {
            throw new ProgramFileException("the file has no data: there is nothing to run");
        }
        pieces.sort(Comparator.comparingLong(Piece::address));
        List<ProgramFile.Segment> segments = new ArrayList<>();
        int from = 0;
        for (int at = 1; at <= pieces.size(); at++) {
            Piece before = pieces.get(at - 1);
            if (at < pieces.size() && pieces.get(at).address() < before.end()) {
                throw RecordLines.wrong(
                        pieces.get(at).line(),
                        "0x%08X is there twice, first in line %s"
                                .formatted(pieces.get(at).address(), before.line()));
            }
            if (at == pieces.size() || pieces.get(at).address() != before.end()) {
                segments.add(segment(pieces.subList(from, at), entry));
                from = at;
            }
        }
        return new ProgramFile(
                0, entry.orElse(ProgramFile.NO_ENTRY), List.copyOf(segments), List.of());
    }

    private static ProgramFile.Segment segment(List<Piece> run, OptionalLong entry) {
        long base = run.getFirst().address();
        byte[] bytes = new byte[Math.toIntExact(run.getLast().end() - base)];
        for (Piece piece : run) {
            System.arraycopy(
                    piece.bytes(), 0, bytes, (int) (piece.address() - base), piece.bytes().length);
        }
        boolean executed =
                entry.isPresent()
                        && entry.getAsLong() >= base
                        && entry.getAsLong() - base < bytes.length;
        return new ProgramFile.Segment(base, base, bytes, bytes.length, false, executed);
    }
}
