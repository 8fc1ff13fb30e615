// IEEE 1800-2017 clause 10.3.4: a delay lets no shorter change through
module t;
  logic a = 0;
  wire #5 y = a;
  initial begin
    #10 a = 1;
    #3 a = 0;
    #10 a = 1;
    #6 $display("%0t %b", $time, y);
  end
  initial #12 forever #1 if (y === 1) begin $display("%0t", $time); $finish; end
endmodule
//> 28
