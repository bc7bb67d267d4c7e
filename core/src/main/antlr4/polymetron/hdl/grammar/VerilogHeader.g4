// The declaration part of modules (IEEE 1800-2017, 23.2): parameters and ports, in the port list or behind it. What a module
// does is passed over, but for declarations of ports and parameters in it.
parser grammar VerilogHeader;

options { tokenVocab = VerilogLexer; }

source: (module | package | skipped)* EOF;

skipped
    : INTERFACE .*? ENDINTERFACE
    | PROGRAM .*? ENDPROGRAM
    | CLASS .*? ENDCLASS
    | PRIMITIVE .*? ENDPRIMITIVE
    | ~(MODULE | PACKAGE | INTERFACE | PROGRAM | CLASS | PRIMITIVE)
    ;

package: PACKAGE LIFETIME? IDENTIFIER SEMICOLON item* ENDPACKAGE;

module
    : MODULE LIFETIME? name = IDENTIFIER packageImport* parameterList? portList? SEMICOLON item* ENDMODULE
    ;

packageImport: IMPORT ~SEMICOLON* SEMICOLON;

parameterList: HASH OPEN (parameterGroup (COMMA parameterGroup)*)? CLOSE;

// "parameter A = 1, B = 2" is one group; without the word the one before goes on.
parameterGroup: (kind = (PARAMETER | LOCALPARAM))? parameterType assignment;

parameterType
    : TYPE
    | (ATOM | REAL | VARIABLE)? SIGNING? range*
    | userType range*
    ;

assignment: IDENTIFIER range* (EQUALS value)?;

portList: OPEN (port (COMMA port)*)? COMMA? CLOSE;

port: DOT IDENTIFIER OPEN value? CLOSE | direction? portType IDENTIFIER range* (EQUALS value)? | LBRACE value RBRACE;

direction: INPUT | OUTPUT | INOUT | REF;

portType
    : compound
    | INTERFACE (DOT IDENTIFIER)?
    | NET? VAR? (ATOM | REAL | VARIABLE)? SIGNING? range*
    | NET? VAR? userType range*
    ;

userType: (IDENTIFIER SCOPE)? IDENTIFIER (DOT IDENTIFIER)?;

compound: COMPOUND ~LBRACE* LBRACE braced* RBRACE range*;

braced: LBRACE braced* RBRACE | ~(LBRACE | RBRACE);

range: LEFT inside* RIGHT;

item
    : FUNCTION .*? ENDFUNCTION
    | TASK .*? ENDTASK
    | portDeclaration
    | parameterDeclaration
    | ~(ENDMODULE | ENDPACKAGE | FUNCTION | TASK | INPUT | OUTPUT | INOUT | PARAMETER | LOCALPARAM)
    ;

portDeclaration: direction portType IDENTIFIER range* (EQUALS value)? (COMMA IDENTIFIER range* (EQUALS value)?)* SEMICOLON;

parameterDeclaration: kind = (PARAMETER | LOCALPARAM) parameterType assignment (COMMA assignment)* SEMICOLON;

// An expression as it stands, up to a comma, a colon or an end that is not its own.
value: part+;

part
    : OPEN inside* CLOSE
    | LEFT inside* RIGHT
    | LBRACE inside* RBRACE
    | (OPERATOR | HASH)
    | (IDENTIFIER | SYSTEM | NUMBER | STRING | SCOPE | DOT | ATOM | SIGNING | VARIABLE | REAL | TYPE | OTHER | EQUALS)
    | conditional
    ;

conditional: COLON;

inside
    : OPEN inside* CLOSE
    | LEFT inside* RIGHT
    | LBRACE inside* RBRACE
    | ~(OPEN | CLOSE | LEFT | RIGHT | LBRACE | RBRACE)
    ;
