// IEEE 1364-2005 clause 9.8.1: statements follow each other
module t;
  initial begin
    begin $write("a"); $write("b"); end
    begin $write("c"); end
    $display("d");
  end
endmodule
//> abcd
