// berth ticket counter
module ticket_counter(input clock, input clear_n, input take,
                      output reg [3:0] ticket, output last);
  always @(negedge clock or negedge clear_n)
    if (!clear_n)
      ticket <= 4'd0;
    else if (take) begin
      if (ticket == 11) ticket <= 4'd0;
      else ticket <= ticket + 4'd1;
    end
  assign last = ticket == 11;
endmodule
