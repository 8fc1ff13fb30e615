-- IEEE 1076-1993 clause 11.2: of a name that it does not have
library ieee;
use ieee.nothing.all; --! undeclared
entity t is end;
architecture a of t is
begin
end;
