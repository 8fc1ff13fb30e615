-- IEEE 1076-1993 clause 7.2.1: the right operand is evaluated only when it decides
entity t is end;
architecture a of t is
begin
  process
    variable i : integer := 0;
  begin
    report boolean'image(i /= 0 and 10 / i > 1) & boolean'image(i = 0 or 10 / i > 1);
    wait;
  end process;
end;
--> note: falsetrue
