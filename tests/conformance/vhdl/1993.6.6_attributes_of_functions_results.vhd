-- IEEE 1076-1993 clause 6.6: range of what a call gives
entity t is end;
architecture a of t is
  function f(n : integer) return bit_vector is
    variable v : bit_vector(n downto 1);
  begin
    return v;
  end;
begin
  process begin
    report integer'image(f(6)'length) & integer'image(f(6)'left);
    wait;
  end process;
end;
--> note: 66
