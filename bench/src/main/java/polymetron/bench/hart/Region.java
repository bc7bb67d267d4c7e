package polymetron.bench.hart;

/** Translated instructions that are entered at one address. */
interface Region {
    /**
     * Runs until so many instructions are done or one comes that the translation does not do.
     *
     * @param x registers of the hart, read at the start and written back at the end
     * @param data bytes of the memory that loads and stores go to
     * @param dataBase address of that memory
     * @param guard see {@link Ram#guard}
     * @param most number of instructions
     * @return number of instructions done in the upper half, address of the next one in the lower
     */
    long run(int[] x, byte[] data, int dataBase, byte[] guard, int most);
}
