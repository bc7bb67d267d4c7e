package polymetron.hdl;

import polymetron.verilog.Module;

/**
 * A port of a user's module.
 *
 * @param width bits as an expression of the module's parameters (IEEE 1800)
 * @param signed whether it is declared as signed
 * @param comment what its line or the lines above it say; empty for nothing
 */
public record HdlPort(
        String name, Module.Way way, String width, boolean signed, int line, String comment) {}
