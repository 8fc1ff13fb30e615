-- IEEE 1076-1993 clause 2.2: pure ones do not
entity t is end;
architecture a of t is
begin
  process
    variable n : integer := 5;
    impure function next_one return integer is
    begin
      n := n + 1;
      return n;
    end;
  begin
    report integer'image(next_one) & integer'image(next_one);
    wait;
  end process;
end;
--> note: 67
