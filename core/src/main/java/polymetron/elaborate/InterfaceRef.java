package polymetron.elaborate;

/** One port or interface of one block, written {@code block.name}. */
public record InterfaceRef(String block, String name) implements Comparable<InterfaceRef> {
    @Override
    public int compareTo(InterfaceRef other) {
        int byBlock = block.compareTo(other.block);
        return byBlock != 0 ? byBlock : name.compareTo(other.name);
    }

    @Override
    public String toString() {
        return block + "." + name;
    }
}
