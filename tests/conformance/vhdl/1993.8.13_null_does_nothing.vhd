-- IEEE 1076-1993 clause 8.13: and may stand where a statement must
entity t is end;
architecture a of t is
begin
  process begin
    if true then
      null;
    end if;
    report "after";
    wait;
  end process;
end;
--> note: after
