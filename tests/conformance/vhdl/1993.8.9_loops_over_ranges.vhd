-- IEEE 1076-1993 clause 8.9: up and down, and not at all over a null range
entity t is end;
architecture a of t is
begin
  process begin
    for i in 1 to 3 loop report integer'image(i); end loop;
    for i in 2 downto 1 loop report integer'image(i); end loop;
    for i in 3 to 2 loop report "never"; end loop;
    wait;
  end process;
end;
--> note: 1
--> note: 2
--> note: 3
--> note: 2
--> note: 1
