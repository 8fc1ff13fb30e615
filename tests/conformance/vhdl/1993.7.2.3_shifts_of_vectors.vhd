-- IEEE 1076-1993 clause 7.2.3: fill with the leftmost value, or with the last element
entity t is end;
architecture a of t is
  signal v : bit_vector(3 downto 0) := "1001";
  procedure show(x : bit_vector) is
    variable s : string(1 to 4);
  begin
    for i in 0 to 3 loop
      if x(x'left - i) = '1' then s(i + 1) := '1'; else s(i + 1) := '0'; end if;
    end loop;
    report s;
  end;
begin
  process begin
    show(v sll 1);
    show(v srl 1);
    show(v sla 1);
    show(v sra 1);
    show(v rol 1);
    show(v ror 1);
    show(v sll -1);
    wait;
  end process;
end;
--> note: 0010
--> note: 0100
--> note: 0011
--> note: 1100
--> note: 0011
--> note: 1100
--> note: 0100
