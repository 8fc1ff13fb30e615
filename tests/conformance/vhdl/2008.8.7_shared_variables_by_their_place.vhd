-- IEEE 1076-2008 clause 8.7: a shared variable may be named by its place
package counting is
  type counter is protected
    procedure up;
    impure function value return integer;
  end protected;
end;
package body counting is
  type counter is protected body
    variable n : integer := 0;
    procedure up is
    begin
      n := n + 1;
    end;
    impure function value return integer is
    begin
      return n;
    end;
  end protected body;
end;
use work.counting.all;
entity sub is
  port (a : in bit);
end;
architecture x of sub is
  shared variable seen : counter;
begin
  process (a)
  begin
    seen.up;
  end process;
end;
use work.counting.all;
entity t is end;
architecture a of t is
  signal s : bit := '0';
begin
  u : entity work.sub port map (s);
  process
    alias seen is << variable .t.u.seen : counter >>;
  begin
    wait for 1 ns;
    report integer'image(seen.value);
    s <= '1';
    wait for 1 ns;
    report integer'image(seen.value);
    wait;
  end process;
end;
--> note: 1
--> note: 2
