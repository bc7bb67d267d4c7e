package polymetron.output.image;

/** Bytes and the address that they belong at. */
public record Chunk(long address, byte[] bytes) {
    /** First address behind the bytes. */
    public long end() {
        return address + bytes.length;
    }
}
