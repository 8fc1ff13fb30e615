-- IEEE 1076-1993 clause 8.12: a value on every way
entity t is end;
architecture a of t is
  function f(i : integer) return integer is --! without a return
  begin
    if i > 0 then
      return 1;
    end if;
  end;
begin
  process
    variable v : integer := 0;
  begin
    report integer'image(f(v));
    wait;
  end process;
end;
