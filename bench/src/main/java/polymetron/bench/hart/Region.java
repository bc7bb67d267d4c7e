package polymetron.bench.hart;

/** Translated instructions that are entered at one address. */
interface Region {
    /** Index among the registers where it says how many instructions it did. */
    int RETIRED = Decoder.DISCARD + 1;

    /**
     * Runs until so many cycles are done or an instruction comes that the translation does not do.
     *
     * @param x registers of the hart, read at the start and written back at the end
     * @param data bytes of the memory that loads and stores go to
     * @param dataBase address of that memory
     * @param guard see {@link Ram#guard}
     * @param load cycles of a load from that memory
     * @param store cycles of a store to it
     * @param most cycles
     * @return cycles done in the upper half, address of the next instruction in the lower; how many were done is in
     *     {@link #RETIRED}
     */
    long run(int[] x, byte[] data, int dataBase, byte[] guard, int load, int store, int most);
}
