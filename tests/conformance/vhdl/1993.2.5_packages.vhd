-- IEEE 1076-1993 clauses 2.5 to 2.7: packages, deferred constants, bodies in any order, selected names
entity packages is end entity;
use work.tools.all;
architecture test of packages is
  signal k : kind := work.tools.middle;
begin
  process begin
    report integer'image(limit) & " " & integer'image(clip(500)) & " " & kind'image(next_of(k)) & " " & integer'image(work.tools.hidden_sum((1, 2, 3)));
    report integer'image(log2_up(9)) & " " & integer'image(table(3));
    wait;
  end process;
end architecture;
package body tools is
  constant limit : integer := 77;
  constant secret : integer := 1000;
  function clip (n : integer) return integer is
  begin
    if n > limit then return limit; end if;
    return n;
  end function;
  function next_of (k : kind) return kind is
  begin
    if k = kind'high then return kind'low; end if;
    return kind'succ(k);
  end function;
  function hidden_sum (v : list) return integer is
    variable s : integer := secret;
  begin
    for i in v'range loop s := s + v(i); end loop;
    return s;
  end function;
  function log2_up (n : positive) return natural is
    variable r : natural := 0;
  begin
    while 2 ** r < n loop r := r + 1; end loop;
    return r;
  end function;
  function squares return list is
    variable v : list(0 to 4);
  begin
    for i in v'range loop v(i) := i * i; end loop;
    return v;
  end function;
  constant table : list(0 to 4) := squares;
end package body;
package tools is
  type kind is (low, middle, high);
  type list is array (natural range <>) of integer;
  constant limit : integer;
  function clip (n : integer) return integer;
  function next_of (k : kind) return kind;
  function hidden_sum (v : list) return integer;
  function log2_up (n : positive) return natural;
  function squares return list;
  constant table : list(0 to 4);
end package;
package body tools_more is
end package body;
package tools_more is
  constant unused : integer := 1;
end package;
--> note: 77 77 high 1006
--> note: 4 9
