-- IEEE 1076-1993 clause 8.7: of if, elsif and else
entity t is end;
architecture a of t is
begin
  process
    variable i : integer := 5;
  begin
    if i > 9 then report "large";
    elsif i > 3 then report "middle";
    elsif i > 1 then report "small";
    else report "none";
    end if;
    wait;
  end process;
end;
--> note: middle
