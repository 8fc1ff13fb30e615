-- IEEE 1076-1993 clause 8.12: and leave
entity t is end;
architecture a of t is
  procedure p(n : integer) is
  begin
    if n > 2 then
      return;
    end if;
    report integer'image(n);
  end;
begin
  process begin
    p(1);
    p(5);
    p(2);
    wait;
  end process;
end;
--> note: 1
--> note: 2
