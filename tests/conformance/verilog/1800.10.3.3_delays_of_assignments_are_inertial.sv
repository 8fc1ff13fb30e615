// IEEE 1800-2017 clause 10.3.3: a pulse that is shorter than the delay is swallowed
module t;
  logic a = 0;
  wire #5 y = a;
  initial begin
    #10 a = 1; #3 a = 0; #3 a = 1; #20 $finish;
  end
  initial $monitor("%0t %b", $time, y);
endmodule
//> 0 x
//> 5 0
//> 21 1
