// IEEE 1800-2017 clause 25.5: two modules at one interface
interface lock_if;
  logic [3:0] level;
  logic open;
  modport gauge(output level, input open);
  modport gate(input level, output open);
endinterface
module gauge(lock_if.gauge l);
  initial begin l.level = 2; #2 l.level = 9; end
endmodule
module gate(lock_if.gate l);
  assign l.open = l.level > 5;
endmodule
module t;
  lock_if l();
  gauge a(l);
  gate b(l);
  initial begin
    #1 $display("%0d %b", l.level, l.open);
    #2 $display("%0d %b", l.level, l.open);
  end
endmodule
//> 2 0
//> 9 1
