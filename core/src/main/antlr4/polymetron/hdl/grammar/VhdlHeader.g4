// The declaration part of entities (IEEE 1076-2008, 3.2 and 6.5) and constants of packages. Each rule begins where its words are
// found: what is between them is not read.
parser grammar VhdlHeader;

options { tokenVocab = VhdlLexer; }

entity: ENTITY IDENTIFIER IS generics? ports?;

generics: GENERIC OPEN generic (SEMICOLON generic)* CLOSE SEMICOLON;

generic: CONSTANT? IDENTIFIER (COMMA IDENTIFIER)* COLON IN? subtype (ASSIGN expression)?;

ports: PORT OPEN port (SEMICOLON port)* CLOSE SEMICOLON;

port: SIGNAL? IDENTIFIER (COMMA IDENTIFIER)* COLON direction? subtype BUS? (ASSIGN expression)?;

direction: IN | OUT | INOUT | BUFFER | LINKAGE;

subtype: typeName (OPEN range (COMMA range)* CLOSE | RANGE range)?;

typeName: IDENTIFIER (DOT IDENTIFIER)*;

range: expression ((TO | DOWNTO) expression)?;

constant: CONSTANT IDENTIFIER (COMMA IDENTIFIER)* COLON subtype (ASSIGN expression)? SEMICOLON;

// From the loosest binding to the tightest (9.2.1).
expression: relation (LOGICAL relation)*;

relation: sum (RELATION sum)?;

sum: sign = (PLUS | MINUS)? product (addition product)*;

addition: PLUS | MINUS | CONCATENATION;

product: factor (multiplication factor)*;

multiplication: TIMES | DIVIDE | MULTIPLYING_WORD;

factor: (ABS | NOT) primary | primary (POWER primary)?;

primary
    : NUMBER IDENTIFIER?
    | STRING
    | CHARACTER
    | OPEN choice (COMMA choice)* CLOSE
    | name
    ;

// An aggregate gives values by choices.
choice: expression (ARROW expression)?;

name: IDENTIFIER (DOT IDENTIFIER)* (OPEN expression (COMMA expression)* CLOSE)? (TICK IDENTIFIER)?;
