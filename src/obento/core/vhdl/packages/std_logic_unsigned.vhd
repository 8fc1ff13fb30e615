-- A widely taught package that is no standard: std_logic_vector as a number.
library ieee;
use ieee.std_logic_1164.all;

package std_logic_unsigned is
  function "+" (l : std_logic_vector; r : std_logic_vector) return std_logic_vector;
  function "+" (l : std_logic_vector; r : integer) return std_logic_vector;
  function "+" (l : integer; r : std_logic_vector) return std_logic_vector;
  function "+" (l : std_logic_vector; r : std_logic) return std_logic_vector;
  function "+" (l : std_logic; r : std_logic_vector) return std_logic_vector;
  function "-" (l : std_logic_vector; r : std_logic_vector) return std_logic_vector;
  function "-" (l : std_logic_vector; r : integer) return std_logic_vector;
  function "-" (l : integer; r : std_logic_vector) return std_logic_vector;
  function "-" (l : std_logic_vector; r : std_logic) return std_logic_vector;
  function "-" (l : std_logic; r : std_logic_vector) return std_logic_vector;
  function "+" (l : std_logic_vector) return std_logic_vector;
  function "*" (l, r : std_logic_vector) return std_logic_vector;
  function "<" (l : std_logic_vector; r : std_logic_vector) return boolean;
  function "<" (l : std_logic_vector; r : integer) return boolean;
  function "<" (l : integer; r : std_logic_vector) return boolean;
  function "<=" (l : std_logic_vector; r : std_logic_vector) return boolean;
  function "<=" (l : std_logic_vector; r : integer) return boolean;
  function "<=" (l : integer; r : std_logic_vector) return boolean;
  function ">" (l : std_logic_vector; r : std_logic_vector) return boolean;
  function ">" (l : std_logic_vector; r : integer) return boolean;
  function ">" (l : integer; r : std_logic_vector) return boolean;
  function ">=" (l : std_logic_vector; r : std_logic_vector) return boolean;
  function ">=" (l : std_logic_vector; r : integer) return boolean;
  function ">=" (l : integer; r : std_logic_vector) return boolean;
  function "=" (l : std_logic_vector; r : std_logic_vector) return boolean;
  function "=" (l : std_logic_vector; r : integer) return boolean;
  function "=" (l : integer; r : std_logic_vector) return boolean;
  function "/=" (l : std_logic_vector; r : std_logic_vector) return boolean;
  function "/=" (l : std_logic_vector; r : integer) return boolean;
  function "/=" (l : integer; r : std_logic_vector) return boolean;
  function shl (arg, count : std_logic_vector) return std_logic_vector;
  function shr (arg, count : std_logic_vector) return std_logic_vector;
  function conv_integer (arg : std_logic_vector) return integer;
end package;
