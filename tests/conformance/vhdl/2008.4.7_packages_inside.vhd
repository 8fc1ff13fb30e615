-- IEEE 1076-2008 clause 4.7: a package may stand inside of an architecture or a process
entity t is end;
architecture a of t is
  package counts is
    constant most : integer := 5;
    function twice (x : integer) return integer;
  end package;
  package body counts is
    function twice (x : integer) return integer is
    begin
      return 2 * x;
    end;
  end package body counts;
  use counts.twice;
begin
  process
    package inner is
      constant step : integer := counts.most + 1;
    end package inner;
  begin
    report integer'image(twice(counts.most)) & " " & integer'image(inner.step);
    wait;
  end process;
end;
--> note: 10 6
