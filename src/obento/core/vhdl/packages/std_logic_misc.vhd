-- A taught package beside ieee: reductions of vectors.
library ieee;
use ieee.std_logic_1164.all;

package std_logic_misc is
@V and nand or nor xor xnor
  function @_reduce (arg : std_logic_vector) return std_ulogic;
  function @_reduce (arg : std_ulogic_vector) return std_ulogic;
@E
end package;
